<script lang="ts">
  import Download from '@lucide/svelte/icons/download';
  import { useQueryClient } from '@tanstack/svelte-query';
  import { asProblem, sendForm, type Problem } from '../../api/api';

  let { onproblem }: { onproblem: (p: Problem) => void } = $props();
  const queries = useQueryClient();
  let words = $state('');

  async function bring(files: FileList | null) {
    const file = files?.[0];
    if (!file) return;
    try {
      const taken = await sendForm<{ added: number; changed: number; left: string[] }>('/api/calendar', { file });
      words =
        `${taken.added} added, ${taken.changed} changed` +
        (taken.left.length ? `; left out: ${taken.left.join('; ')}` : '');
      await queries.invalidateQueries({ queryKey: ['events'] });
    } catch (e) {
      onproblem(asProblem(e));
    }
  }
</script>

<label class="btn btn-sm">
  Bring a calendar (.ics)
  <input type="file" accept=".ics,text/calendar" class="sr-only" onchange={(e) => bring(e.currentTarget.files)} />
</label>
<a class="btn btn-sm" href="/api/calendar.ics" download><Download class="size-4" /> Calendar (.ics)</a>
{#if words}<p role="status" class="text-sm">{words}</p>{/if}

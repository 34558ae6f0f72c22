<script lang="ts">
  import Download from '@lucide/svelte/icons/download';
  import { useQueryClient } from '@tanstack/svelte-query';
  import { asProblem, sendForm, type Problem } from '../../api/api';
  import { tell } from '../../words/tell';

  let { onproblem }: { onproblem: (p: Problem) => void } = $props();
  const queries = useQueryClient();
  let words = $state('');

  async function bring(files: FileList | null) {
    const file = files?.[0];
    if (!file) return;
    try {
      const taken = await sendForm<{ added: number; changed: number; left: string[] }>('/api/calendar', { file });
      words =
        tell('calendarFiles.added_changed', { added: taken.added, changed: taken.changed }) +
        (taken.left.length ? tell('calendarFiles.left_out', { left: taken.left.join('; ') }) : '');
      await queries.invalidateQueries({ queryKey: ['events'] });
    } catch (e) {
      onproblem(asProblem(e));
    }
  }
</script>

<label class="btn btn-sm">
  {tell('calendarFiles.bring_a_calendar_ics')}
  <input type="file" accept=".ics,text/calendar" class="sr-only" onchange={(e) => bring(e.currentTarget.files)} />
</label>
<a class="btn btn-sm" href="/api/calendar.ics" download
  ><Download class="size-4" /> {tell('calendarFiles.calendar_ics')}</a
>
{#if words}<p role="status" class="text-sm">{words}</p>{/if}

<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, ask, asProblem, type Problem } from '../../api/api';
  import { tell } from '../../words/tell';

  /** Who besides the driver sees what was felt and said of a session: nobody, until let in. */
  let { session, onproblem }: { session: string; onproblem: (problem: Problem | null) => void } = $props();
  const queries = useQueryClient();
  const coaches = createQuery(() => ({
    queryKey: ['coaches', session],
    queryFn: () => ask(api.GET('/api/sessions/{id}/coaches', { params: { path: { id: session } } })),
  }));

  async function letIn(share: string, sees: boolean) {
    onproblem(null);
    try {
      queries.setQueryData(
        ['coaches', session],
        await ask(
          api.PUT('/api/sessions/{id}/coaches/{share}', { params: { path: { id: session, share } }, body: { sees } }),
        ),
      );
    } catch (e) {
      onproblem(asProblem(e));
      void queries.invalidateQueries({ queryKey: ['coaches', session] });
    }
  }
</script>

{#if coaches.data?.length}
  <div class="grid gap-1 text-sm" data-coaches>
    {#each coaches.data as c (c.share)}
      <label class="flex items-center gap-2"
        ><input
          type="checkbox"
          class="checkbox checkbox-xs"
          checked={c.sees}
          onchange={(e) => letIn(c.share, e.currentTarget.checked)}
        />{tell('coaches.sees_what_you_felt_and', { name: c.name })}</label
      >
    {/each}
  </div>
{/if}

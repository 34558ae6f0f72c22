<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ask } from '../../api/api';

  /** What was felt beside what was driven, corner by corner. */
  let { session, called }: { session: string; called: (corner: string) => string } = $props();
  const felt = createQuery(() => ({
    queryKey: ['felt', session],
    queryFn: () => ask(api.GET('/api/sessions/{id}/felt', { params: { path: { id: session } } })),
  }));
</script>

{#if felt.data?.run && felt.data.corners.length}
  <h3 class="mt-1 font-bold">
    Felt and driven{felt.data.agreement
      ? `: the same in ${felt.data.agreement.same} of ${felt.data.agreement.told} ${felt.data.agreement.told === 1 ? 'corner' : 'corners'}`
      : ''}
  </h3>
  {#if felt.data.otherwise}<p class="border-base-300 border-l-4 pl-2 text-sm" data-otherwise>
      {felt.data.otherwise}
    </p>{/if}
  <ul class="grid gap-0.5 text-sm" data-felt>
    {#each felt.data.corners as f (f.corner)}
      <li class="flex gap-2">
        <span class="w-8 font-semibold">{called(f.corner)}</span>
        <span aria-hidden="true">{f.agrees == null ? '·' : f.agrees ? '=' : '≠'}</span>
        <span>{f.words}</span>
      </li>
    {/each}
  </ul>
{/if}

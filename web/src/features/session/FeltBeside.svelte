<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ask } from '../../api/api';
  import { tell } from '../../words/tell';

  /** What was felt beside what was driven, corner by corner. */
  let { session, called }: { session: string; called: (corner: string) => string } = $props();
  const felt = createQuery(() => ({
    queryKey: ['felt', session],
    queryFn: () => ask(api.GET('/api/sessions/{id}/felt', { params: { path: { id: session } } })),
  }));
</script>

{#if felt.data?.run && felt.data.corners.length}
  <h3 class="mt-1 font-bold">
    {tell('feltBeside.felt_and_driven', {
      told: felt.data.agreement
        ? tell('feltBeside.the_same_in_of_corner', { same: felt.data.agreement.same, told: felt.data.agreement.told })
        : '',
    })}
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

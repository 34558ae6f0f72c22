<script lang="ts">
  import { useQueryClient } from '@tanstack/svelte-query';
  import { asProblem, type Problem } from '../api/api';
  import { basket } from './basket.svelte';
  import ProblemBox from './ProblemBox.svelte';
  import { tell } from '../words/tell';

  /** What was put away last, and the way back. */
  const queries = useQueryClient();
  let problem = $state.raw<Problem | null>(null);

  async function back() {
    problem = null;
    try {
      await basket.back();
      await queries.invalidateQueries();
    } catch (e) {
      problem = asProblem(e);
    }
  }
</script>

{#if basket.last}
  <div class="no-print border-base-300 bg-base-100 flex flex-wrap items-center gap-3 border-b px-5 py-1" role="status">
    <span>{tell('basketNote.is_in_the_basket_for', { name: basket.last.name })}</span>
    <button class="btn btn-sm" onclick={back}>{tell('basketNote.bring_it_back')}</button>
    <button class="btn btn-sm btn-ghost" onclick={() => (basket.last = null)}>{tell('basketNote.hide')}</button>
    {#if problem}<ProblemBox {problem} />{/if}
  </div>
{/if}

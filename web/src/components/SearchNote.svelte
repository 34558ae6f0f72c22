<script lang="ts">
  import { asProblem, type Problem, type Search } from '../lib/api';
  import { cancel } from '../lib/searches';

  /** How far the search for a line is, and a way out of it. */
  let { search, onproblem }: { search: Search; onproblem?: (problem: Problem) => void } = $props();
  let leaving = $state(false);
  async function leave() {
    leaving = true;
    try {
      await cancel(search.id);
    } catch (e) {
      onproblem?.(asProblem(e));
    } finally {
      leaving = false;
    }
  }
</script>

<div class="flex items-center gap-3" role="status" data-search={search.state}>
  <span>{search.state === 'WAITING' ? 'Others are computed first' : 'Searching the quickest line'}</span>
  <progress class="progress progress-primary w-40" value={search.share} max="1" aria-label="Search"></progress>
  <button type="button" class="btn btn-sm" disabled={leaving} onclick={leave}>Cancel</button>
</div>

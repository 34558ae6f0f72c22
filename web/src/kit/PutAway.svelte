<script lang="ts">
  import { useQueryClient } from '@tanstack/svelte-query';
  import Archive from '@lucide/svelte/icons/archive';
  import { asProblem, type Away, type Problem } from '../api/api';
  import { basket } from './basket.svelte';
  import { tell } from '../words/tell';

  /** Puts one thing into the basket, from where it can be brought back. */
  let { sort, id, name, onproblem }: { sort: Away['sort']; id: string; name: string; onproblem: (p: Problem) => void } =
    $props();
  const queries = useQueryClient();

  async function put() {
    try {
      await basket.put(sort, id, name);
      await queries.invalidateQueries();
    } catch (e) {
      onproblem(asProblem(e));
    }
  }
</script>

<button
  class="btn btn-sm btn-square btn-ghost"
  aria-label={tell('putAway.put_away', { name })}
  title={tell('putAway.put_away_2')}
  onclick={put}
>
  <Archive class="size-4" />
</button>

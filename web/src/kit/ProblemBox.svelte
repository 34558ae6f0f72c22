<script lang="ts">
  import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
  import type { Problem } from '../api/api';
  import { tell } from '../words/tell';

  let { problem, children }: { problem: Problem; children?: import('svelte').Snippet } = $props();
</script>

<div class="border-error bg-base-100 flex gap-3 rounded border-l-4 p-3" role="alert">
  <TriangleAlert class="text-error mt-0.5 size-5 shrink-0" aria-hidden="true" />
  <div>
    <p class="font-semibold">{problem.message}</p>
    {#if problem.where}<p class="text-sm">{tell('problemBox.where', { where: problem.where })}</p>{/if}
    <p>{problem.remedy}</p>
    {@render children?.()}
  </div>
</div>

<script lang="ts">
  import { GEARS, type CornerView } from './cornerView.svelte';

  /** Gears through a corner: the higher one, the taller. */
  let { view }: { view: CornerView } = $props();
</script>

{#each view.gearRuns as run (run.from)}
  {@const h = 6 + ((GEARS - 8) * run.gear) / view.topGear}
  {@const w = Math.max(0, view.x(run.to) - view.x(run.from) - 1)}
  <rect x={view.x(run.from)} y={view.gearTop + GEARS - h} width={w} height={h} fill="var(--road-quiet)" />
  {#if w > 9}
    <text x={view.x(run.from) + w / 2} y={view.gearTop + GEARS - 3} text-anchor="middle" font-weight="700"
      >{run.gear}</text
    >
  {/if}
{/each}

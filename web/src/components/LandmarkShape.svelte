<script lang="ts">
  import type { Landmark } from '../lib/api';

  let { landmark }: { landmark: Landmark } = $props();
  const up = $derived(landmark.left ? -1 : 1);
</script>

<!-- Drawn from the road's edge outwards: up on the left, down on the right. -->
{#if landmark.kind === 'BOARD'}
  <path d="M0 0V{up * 10}" stroke="var(--ink)" />
  <rect
    x="-15"
    y={up < 0 ? -26 : 10}
    width="30"
    height="16"
    fill="var(--color-base-100)"
    stroke="var(--ink)"
    class="focus-ring"
  />
  <text y={up < 0 ? -14 : 22} text-anchor="middle" style="font-size:11px">{landmark.label}</text>
{:else}
  <path
    d="M-4 0V{up * 8}L0 {up * 14}L4 {up * 8}V0Z"
    fill="var(--color-base-100)"
    stroke="var(--ink)"
    class="focus-ring"
  />
  <text y={up < 0 ? -18 : 26} text-anchor="middle" style="font-size:10px">{landmark.label}</text>
{/if}

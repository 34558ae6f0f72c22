<script lang="ts">
  import type { Landmark } from '../api/api';

  interface Props {
    landmark: Pick<Landmark, 'kind' | 'label' | 'left' | 'readable'>;
    quiet?: boolean;
  }
  let { landmark, quiet = false }: Props = $props();
  const up = $derived(landmark.left ? -1 : 1);
  const textAt = $derived((far: number) => (up < 0 ? -far - 3 : far + 11));
  const words = $derived(landmark.label.length > 16 ? landmark.label.slice(0, 15) + '…' : landmark.label);
</script>

<!-- Drawn from the road's edge outwards: up on the left, down on the right. What lies on the road is
     drawn inwards from the edge. -->
{#snippet label(far: number)}
  {#if words && !quiet}
    <text y={textAt(far)} text-anchor="middle" style="font-size:10.5px">{words}</text>
  {/if}
{/snippet}

{#if landmark.kind === 'BOARD'}
  <path d="M0 0V{up * 10}" stroke="var(--ink)" />
  <rect
    x="-15"
    y={up < 0 ? -26 : 10}
    width="30"
    height="16"
    fill="var(--color-base-100)"
    stroke="var(--ink)"
    stroke-dasharray={landmark.readable ? undefined : '2 2'}
    class="focus-ring"
  />
  {#if !quiet}
    <text y={up < 0 ? -14 : 22} text-anchor="middle" style="font-size:11px">{landmark.label.slice(0, 6)}</text>
  {/if}
{:else if landmark.kind === 'TREE'}
  <path d="M0 0V{up * 12}" stroke="var(--ink)" stroke-width="1.6" />
  <circle cy={up * 18} r="7.5" fill="var(--road-quiet)" stroke="var(--ink)" class="focus-ring" />
  <path d="M-3 {up * 18}q3 {up * 5} 6 0" fill="none" stroke="var(--ink)" />
  {@render label(26)}
{:else if landmark.kind === 'POST'}
  <path d="M0 0V{up * 20}" stroke="var(--ink)" stroke-width="2" />
  <path d="M-5 {up * 20}h10v{up * 6}h-10z" fill="var(--color-base-100)" stroke="var(--ink)" class="focus-ring" />
  {@render label(26)}
{:else if landmark.kind === 'BARRIER'}
  <path d="M0 {up * 5}h-17m17 {up * 6}h-17" stroke="var(--ink)" stroke-width="2.2" />
  <path d="M0 {up * 2}V{up * 14}" stroke="var(--ink)" stroke-width="2.6" class="focus-ring" />
  {@render label(16)}
{:else if landmark.kind === 'BRIDGE'}
  <path d="M-9 0V{up * 15}H9V0" fill="none" stroke="var(--ink)" stroke-width="2" class="focus-ring" />
  <path d="M-13 {up * 15}H13" stroke="var(--ink)" stroke-width="3" />
  {@render label(18)}
{:else if landmark.kind === 'ROAD'}
  <path d="M-5 0L-9 {up * 16}M5 0L9 {up * 16}" stroke="var(--ink)" stroke-width="1.4" class="focus-ring" />
  <path d="M0 {up * 3}V{up * 16}" stroke="var(--ink)" stroke-dasharray="3 3" />
  {@render label(18)}
{:else if landmark.kind === 'LINE'}
  <path d="M0 0V{-up * 16}" stroke="var(--color-base-100)" stroke-width="4" class="focus-ring" />
  <path d="M-2.5 0V{-up * 16}M2.5 0V{-up * 16}" stroke="var(--ink)" stroke-width="0.8" />
  {@render label(4)}
{:else if landmark.kind === 'SEAM'}
  <path
    d="M0 0l2 {-up * 5}l-4 {-up * 5}l4 {-up * 5}l-3 {-up * 5}"
    fill="none"
    stroke="var(--ink)"
    stroke-width="1.6"
    class="focus-ring"
  />
  {@render label(4)}
{:else if landmark.kind === 'KERB'}
  <path d="M-14 0h14v{up * 6}h-14z" fill="var(--color-base-100)" stroke="var(--ink)" class="focus-ring" />
  <path d="M-10 0v{up * 6}M-5 0v{up * 6}" stroke="var(--ink)" stroke-width="2" />
  {@render label(9)}
{:else if landmark.kind === 'CREST'}
  <path d="M-12 {-up * 3}q12 {-up * 14} 24 0" fill="none" stroke="var(--ink)" stroke-width="1.8" class="focus-ring" />
  <path d="M-8 {-up * 3}q8 {-up * 8} 16 0" fill="none" stroke="var(--ink)" stroke-dasharray="2 2" />
  {@render label(4)}
{:else if landmark.kind === 'SHADOW'}
  <path d="M-7 {up * 9}L0 {-up * 17}L7 {up * 9}Z" fill="var(--ink)" opacity="0.28" class="focus-ring" />
  <path d="M0 {-up * 17}v{up * 8}" stroke="var(--ink)" />
  {@render label(12)}
{:else if landmark.kind === 'RUBBER'}
  <path
    d="M-12 {-up * 8}q8 {-up * 3} 14 {up * 1}t10 {up * 1}M-12 {-up * 13}q8 {-up * 3} 14 {up * 1}t10 {up * 1}"
    fill="none"
    stroke="var(--ink)"
    stroke-width="2"
    class="focus-ring"
  />
  {@render label(4)}
{:else if landmark.kind === 'WALL'}
  <path d="M0 {up * 3}h16v{up * 9}h-16z" fill="var(--color-base-100)" stroke="var(--ink)" class="focus-ring" />
  <path
    d="M0 {up * 7.5}h16M8 {up * 3}v{up * 4.5}M4 {up * 7.5}v{up * 4.5}M12 {up * 7.5}v{up * 4.5}"
    stroke="var(--ink)"
  />
  {@render label(16)}
{:else if landmark.kind === 'HEDGE'}
  <path
    d="M0 {up * 3}q-3 {up * 9} 4 {up * 9}q4 {up * 5} 8 0q7 0 4 {-up * 9}z"
    fill="var(--road-quiet)"
    stroke="var(--ink)"
    class="focus-ring"
  />
  {@render label(18)}
{:else if landmark.kind === 'BANNER'}
  <path d="M0 {up * 2}v{up * 14}M16 {up * 2}v{up * 14}" stroke="var(--ink)" stroke-width="1.6" />
  <path d="M0 {up * 8}h16v{up * 8}h-16z" fill="var(--color-base-100)" stroke="var(--ink)" class="focus-ring" />
  {@render label(20)}
{:else if landmark.kind === 'CONE'}
  <path d="M-6 {up * 2}h12L2 {up * 15}h-4z" fill="var(--color-base-100)" stroke="var(--ink)" class="focus-ring" />
  <path d="M-4 {up * 7}h8" stroke="var(--ink)" stroke-width="2" />
  {@render label(17)}
{:else}
  <path
    d="M-4 0V{up * 8}L0 {up * 14}L4 {up * 8}V0Z"
    fill="var(--color-base-100)"
    stroke="var(--ink)"
    class="focus-ring"
  />
  {@render label(15)}
{/if}

<script lang="ts">
  import type { PointKind } from '../api/api';
  import { POINTS } from './points';

  let { kind, ghost = false, left = false }: { kind: PointKind; ghost?: boolean; left?: boolean } = $props();
  const colour = $derived(POINTS[kind].colour);
  const paper = 'var(--color-base-100)';
</script>

<g opacity={ghost ? 0.5 : 1} stroke-dasharray={ghost ? '2 2' : undefined}>
  {#if kind === 'BRAKE'}
    <path d="M-9 -8H9L0 7Z" fill={ghost ? paper : colour} stroke={colour} stroke-width="1.5" />
  {:else if kind === 'BUILD_UP'}
    <path d="M-8 -7H8L0 6Z" fill="none" stroke={colour} stroke-width="1.8" stroke-dasharray="3 2" />
  {:else if kind === 'TARGET'}
    <path d="M-8 -7H8L0 6Z" fill={paper} stroke={colour} stroke-width="2" />
    <circle cy="-3" r="1.8" fill={colour} />
  {:else if kind === 'BACK_UP'}
    <path d="M-8 -7H8L0 6Z" fill={paper} stroke={colour} stroke-width="2" />
    <path d="M-4 -3.5H4" stroke={colour} stroke-width="2" />
  {:else if kind === 'DOWNSHIFT'}
    <path d="M-6 -6V0H6V7" fill="none" stroke={colour} stroke-width="2.4" />
  {:else if kind === 'SHORT_SHIFT'}
    <path d="M-6 7V0H6V-6" fill="none" stroke={colour} stroke-width="2.4" />
  {:else if kind === 'FIRST_APEX'}
    <path d="M0 -6L6 0L0 6L-6 0Z" fill={paper} stroke={colour} stroke-width="1.6" />
  {:else if kind === 'TURN_IN'}
    <path
      d={left ? 'M-5 8V0Q-5 -6 1 -6H7M3 -10L7 -6L3 -2' : 'M-5 -8V0Q-5 6 1 6H7M3 10L7 6L3 2'}
      fill="none"
      stroke={colour}
      stroke-width="2.5"
    />
  {:else if kind === 'RELEASE'}
    <circle r="6" fill={paper} stroke={colour} stroke-width="2.5" />
  {:else if kind === 'APEX'}
    <path d="M0 -8L8 0L0 8L-8 0Z" fill={paper} stroke={colour} stroke-width="2" />
  {:else if kind === 'FIRST_THROTTLE'}
    <path d="M-8 3A8 8 0 0 1 8 3Z" fill={ghost ? paper : colour} stroke={colour} stroke-width="1.5" />
  {:else if kind === 'FULL_THROTTLE'}
    <circle r="7" fill={ghost ? paper : colour} stroke={colour} stroke-width="1.5" />
  {:else}
    <path d="M-5 -7L5 0L-5 7" fill="none" stroke={colour} stroke-width="2.5" />
  {/if}
</g>

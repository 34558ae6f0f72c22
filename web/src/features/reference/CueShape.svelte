<script lang="ts">
  import type { CueKind } from '../../api/api';

  /** A small drawing of how a place is found: a post, an eye, a clock, an ear. */
  let { kind }: { kind: CueKind } = $props();
  const eye = $derived(kind === 'INTO_VIEW' || kind === 'OUT_OF_VIEW');
  const clock = $derived(kind === 'SECONDS');
  const ear = $derived(kind === 'LIMITER' || kind === 'REVS');
  const post = $derived(kind === 'PAST' || kind === 'LENGTHS' || kind === 'BESIDE');
</script>

<svg width="16" height="14" viewBox="0 0 16 14" aria-hidden="true" fill="none" stroke="currentColor" stroke-width="1.4">
  {#if eye}
    <path d="M1 7q7 -8 14 0q-7 8 -14 0z" />
    <circle cx="8" cy="7" r="2" fill="currentColor" />
    {#if kind === 'OUT_OF_VIEW'}<path d="M2 13L14 1" />{/if}
  {:else if clock}
    <circle cx="8" cy="7" r="6" />
    <path d="M8 3.5V7l2.5 2" />
  {:else if ear}
    <path d="M5 12q-2 -3 -1 -7q2 -5 6 -2q3 3 -1 6q-1 1 -1 3q-1 1 -3 0" />
  {:else if post}
    <path d="M5 13V2h6v4h-6" />
    {#if kind === 'BESIDE'}<path d="M12 10h3" />{/if}
  {:else if kind === 'SHARE' || kind === 'BETWEEN'}
    <path d="M1 10h14M1 7v6M15 7v6M8 4v6" />
  {:else if kind === 'SETTLED'}
    <path d="M1 11q4 0 5 -5q2 -5 4 1q1 4 5 4" />
  {:else}
    <path d="M8 12q-6 -4 -5 -8q3 -3 5 1q2 -4 5 -1q1 4 -5 8z" />
  {/if}
</svg>

<script lang="ts">
  /** A pedal's way: how much of it is written, and how much was used. */
  interface Props {
    x: number;
    y: number;
    height: number;
    written: number;
    driven: number;
    shares?: { lap: string; share: number }[];
    lap?: string;
  }
  let { x, y, height, written, driven, shares = [], lap = '' }: Props = $props();
  const foot = $derived(y + height / 2);
  const at = (share: number) => foot - Math.max(0, Math.min(1, share)) * height;
</script>

<g data-gauge={Math.round(driven * 100)} aria-hidden="true">
  <path d="M{x} {foot}V{foot - height}" stroke="var(--road-quiet)" stroke-width="6" />
  <path d="M{x} {foot}V{at(driven)}" stroke="var(--ink)" stroke-width="6" />
  <path d="M{x - 5} {at(written)}h10" stroke="var(--turn)" stroke-width="2" />
  {#each shares as s (s.lap)}
    <circle
      cx={x + 8}
      cy={at(s.share)}
      r={s.lap === lap ? 3.4 : 1.8}
      fill={s.lap === lap ? 'var(--turn)' : 'var(--ink)'}
      opacity={s.lap === lap ? 1 : 0.55}
    />
  {/each}
</g>

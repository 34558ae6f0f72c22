<script lang="ts">
  /** The scale of a drawing: values where they stand, and a line with ticks where that is wanted. */
  interface Props {
    scale: (value: number) => number;
    values: number[];
    word: (value: number) => string;
    /** Pixels down for one that runs across, across for one that runs up. */
    at: number;
    up?: boolean;
    /** From and to in pixels along it; without it there is no line. */
    line?: [number, number];
  }
  let { scale, values, word, at, up = false, line }: Props = $props();
</script>

<g data-axis>
  {#if line}
    <path d={up ? `M${at} ${line[0]}V${line[1]}` : `M${line[0]} ${at}H${line[1]}`} stroke="var(--ink-soft)" />
  {/if}
  {#each values as v (v)}
    {#if line}
      <path d={up ? `M${at - 4} ${scale(v)}h8` : `M${scale(v)} ${at - 4}v8`} stroke="var(--ink-soft)" />
    {/if}
    <text
      x={up ? at - 4 : scale(v)}
      y={up ? scale(v) + 4 : at + 15}
      text-anchor={up ? 'end' : 'middle'}
      style="fill:var(--ink-soft);font-size:11px">{word(v)}</text
    >
  {/each}
</g>

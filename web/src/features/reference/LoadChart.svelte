<script lang="ts">
  import type { AnswerView } from '../../api/api';
  import { metres, plain } from '../../words/units';
  import { tell } from '../../words/tell';

  /** What the tyres carry along the approach, and whether that speaks for braking elsewhere. */
  let { load, length }: { load: AnswerView['load']; length: number } = $props();
  const W = 268;
  const H = 58;
  const ahead = (to: number) => (((to - load.from) % length) + length) % length;
  const span = $derived(Math.max(1, (load.load.length - 1) * load.step));
  const x = (station: number) => (Math.min(span, ahead(station)) / span) * W;
  // What matters is how the load changes: the lane spans what there is, its weight always in it.
  const least = $derived(Math.min(0.9, ...load.load));
  const most = $derived(Math.max(1.1, ...load.load));
  const y = (n: number) => H - 15 - ((n - least) / (most - least)) * (H - 26);
  const line = $derived(load.load.map((n, k) => `${k ? 'L' : 'M'}${((k * load.step) / span) * W} ${y(n)}`).join(''));
  const begin = $derived(load.begin ?? null);
  const best = $derived(load.best ?? null);
  const by = $derived.by(() => {
    if (begin === null || best === null) return 0;
    const d = ahead(best) - ahead(begin);
    return Math.abs(d) < 0.5 ? 0 : d;
  });
  const gain = $derived(load.atBest && load.atBegin ? load.atBest / load.atBegin - 1 : 0);
  const WHY = {
    CREST: 'light',
    BUMPS: 'bumps',
    STROKE: tell('loadChart.on_the_stops'),
    DROOP: tell('loadChart.wheels_hang'),
  };
  const words = $derived(
    [
      by && begin !== null
        ? tell('loadChart.begun_sooner_later_braking_finds', {
            by: metres(Math.abs(by)),
            lessBy: by < 0,
            gain: plain(gain * 100),
          })
        : '',
      load.light.length
        ? tell('loadChart.on_the_approach', {
            why: [...new Set(load.light.map((l) => WHY[l.why]))].join(' and '),
            to: load.light.map((l) => tell('loadChart.to', { from: metres(l.from), to: metres(l.to) })).join(', '),
          })
        : '',
    ]
      .filter(Boolean)
      .join(' '),
  );
</script>

<div data-load={by}>
  <svg
    width={W}
    height={H}
    class="block"
    role="img"
    aria-label={tell('loadChart.load_of_the_tyres_along', { load: plain(load.load[0] ?? 1, 2), words })}
  >
    <path d="M0 {y(1)}H{W}" stroke="var(--ink-soft)" stroke-dasharray="2 4" />
    <text x="0" y={H - 1} style="font-size:10px">{tell('loadChart.load_of_the_tyres_dotted')}</text>
    {#each load.light as l (l.from)}
      <rect
        x={x(l.from)}
        y="2"
        width={Math.max(2, x(l.to) - x(l.from))}
        height={H - 15}
        fill="url(#hatch)"
        opacity="0.7"
      />
    {/each}
    <path d={line} fill="none" stroke="var(--ink)" stroke-width="1.6" />
    {#if begin !== null}<path d="M{x(begin) - 5} 0h10l-5 8z" fill="var(--brake)" />{/if}
    {#if by && best !== null}
      <path d="M{x(best) - 5} 1h10l-5 7z" fill="none" stroke="var(--brake)" stroke-width="1.6" />
    {/if}
  </svg>
  {#if words}<p class="text-xs leading-tight">{words}</p>{/if}
</div>

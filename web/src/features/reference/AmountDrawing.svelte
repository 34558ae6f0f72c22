<script lang="ts">
  import type { AmountCurve } from '../../api/api';
  import { metres, signed } from '../../words/units';
  import { lossCurve } from './lossCurve';
  import { tell } from '../../words/tell';

  /** What more and less of an action cost: less to the left, more to the right, seconds lost downwards. */
  let { curve }: { curve: AmountCurve } = $props();

  const W = 250;
  const H = 78;
  const TOP = 16;
  const said = (a: number) => (curve.across ? metres(a, 1) : `${Math.round(a * 100)} %`);
  const first = $derived(curve.amounts[0] ?? 0);
  const last = $derived(curve.amounts.at(-1) ?? 1);
  const x = (a: number) => 8 + ((a - first) / Math.max(1e-9, last - first)) * (W - 16);
  const loss = $derived(
    lossCurve(
      curve.amounts.map((a) => ({ a })),
      curve.seconds,
      TOP,
      H - TOP - 20,
    ),
  );
  /** Where the corner is not made any more: half a step beyond the last that is. */
  const step = $derived((curve.amounts[1] ?? last) - first);
  const shut = $derived(loss.told.filter((p) => p.s == null));
  const near = (by: number) => loss.told.find((p) => Math.abs(p.a - curve.written - by) < 1e-6);
  const by = $derived(curve.across ? 0.5 : 0.1);
  const unit = $derived(curve.across ? metres(0.5, 1) : tell('amountDrawing.10_points'));
  const cost = (s: number | null | undefined) => (s == null ? tell('amountDrawing.is_not_made') : `${signed(s, 3)} s`);
</script>

<figure data-amounts>
  <svg viewBox="0 0 {W} {H}" width={W} height={H} role="img" aria-label={tell('amountDrawing.what_more_and_less_of')}>
    {#each shut as p (p.a)}
      {@const from = Math.max(0, x(p.a - step / 2))}
      <rect
        x={from}
        y={TOP - 4}
        width={Math.min(W, x(p.a + step / 2)) - from}
        height={H - TOP - 10}
        fill="var(--turn)"
        opacity="0.14"
        data-not-made={p.a}
      />
    {/each}
    <path d="M8 {loss.y(0)}H{W - 8}" stroke="var(--ink-soft)" stroke-dasharray="1 3" />
    <path d={loss.path((p) => x(p.a))} fill="none" stroke="var(--ink)" stroke-width="1.6" />
    <circle cx={x(curve.written)} cy={loss.y(0)} r="3" fill="var(--paper)" stroke="var(--ink)" />
    <text x="8" y={H - 3} font-size="11">{said(first)}</text>
    <text x={W - 8} y={H - 3} font-size="11" text-anchor="end">{said(last)}</text>
  </svg>
  <figcaption class="leading-tight">
    {#if near(-by)}{tell('amountDrawing.less', {
        unit,
        by: cost(near(-by)?.s),
        by2: near(by) ? '; ' : '.',
      })}{/if}{#if near(by)}{tell('amountDrawing.further_off_more', {
        unit,
        hasAcross: !!curve.across,
        by: cost(near(by)?.s),
      })}{/if}
  </figcaption>
</figure>

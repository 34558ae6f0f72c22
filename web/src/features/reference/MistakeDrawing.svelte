<script lang="ts">
  import type { MistakeCurve } from '../../api/api';
  import { metres, signed } from '../../words/units';
  import { lossCurve } from './lossCurve';
  import { tell } from '../../words/tell';

  /** What missing a place costs: early to the left, late to the right, seconds downwards, and where to aim. */
  let { curve }: { curve: MistakeCurve } = $props();

  const W = 250;
  const H = 84;
  const TOP = 16;
  const reach = $derived(Math.max(...curve.metres.map(Math.abs)));
  const x = (m: number) => W / 2 + (Math.max(-reach, Math.min(reach, m)) / reach) * (W / 2 - 8);
  const loss = $derived(
    lossCurve(
      curve.metres.map((m) => ({ m })),
      curve.seconds,
      TOP,
      H - TOP - 24,
    ),
  );
  // The scatter about the aim, as a hill under the curve.
  const hill = $derived(
    Array.from({ length: 33 }, (_, k) => curve.aim + ((k - 16) / 16) * 3 * curve.sigma)
      .map((m, k) => {
        const high = Math.exp(-0.5 * ((m - curve.aim) / curve.sigma) ** 2);
        return `${k ? 'L' : 'M'}${x(m)} ${H - 2 - 18 * high}`;
      })
      .join(''),
  );
  const moved = $derived(Math.abs(curve.aim) >= 0.5);
</script>

<figure data-mistakes>
  <svg
    viewBox="0 0 {W} {H}"
    width={W}
    height={H}
    role="img"
    aria-label={tell('mistakeDrawing.what_missing_the_place_costs')}
  >
    {#if curve.last != null}
      <rect
        x={x(curve.last)}
        y={TOP - 4}
        width={W - x(curve.last)}
        height={H - TOP + 4}
        fill="var(--turn)"
        opacity="0.14"
      />
      <path d="M{x(curve.last)} {TOP - 4}V{H}" stroke="var(--turn)" />
    {/if}
    {#if curve.first != null}
      <rect x="0" y={TOP - 4} width={x(curve.first)} height={H - TOP + 4} fill="var(--turn)" opacity="0.14" />
      <path d="M{x(curve.first)} {TOP - 4}V{H}" stroke="var(--turn)" />
    {/if}
    <path d={hill} fill="none" stroke="var(--ink-soft)" />
    <path d="M8 {loss.y(0)}H{W - 8}" stroke="var(--ink-soft)" stroke-dasharray="1 3" />
    <path d={loss.path((p) => x(p.m))} fill="none" stroke="var(--ink)" stroke-width="1.6" />
    <circle cx={x(0)} cy={loss.y(0)} r="3" fill="var(--paper)" stroke="var(--ink)" />
    <path d="M{x(curve.aim)} {TOP - 6}l-4 -6h8z" fill="var(--ink)" data-aim={curve.aim} />
    <text x="8" y="10" font-size="11">{tell('mistakeDrawing.early')}</text>
    <text x={W - 8} y="10" font-size="11" text-anchor="end">{tell('mistakeDrawing.late')}</text>
  </svg>
  <figcaption class="leading-tight">
    {#if moved}
      {tell('mistakeDrawing.aim_sooner_later_s_on', {
        aim: metres(Math.abs(curve.aim), 1),
        lessAim: curve.aim < 0,
        aimed: signed(curve.aimed, 3),
        asPlanned: signed(curve.asPlanned, 3),
      })}
    {:else}
      {tell('mistakeDrawing.the_place_itself_is_the', { aimed: signed(curve.aimed, 3) })}
    {/if}
    {#if curve.off >= 0.0005}
      {tell('mistakeDrawing.aimed_at_the_place_of', { off: (curve.off * 100).toFixed(1), hasTight: !!curve.tight })}
    {/if}
    <span class="opacity-75">
      {tell('mistakeDrawing.missed_by_as_laps_did', {
        sigma: metres(curve.sigma, 1),
        hasLaps: !!curve.laps,
        laps: curve.laps,
      })}
    </span>
  </figcaption>
</figure>

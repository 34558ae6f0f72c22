<script lang="ts">
  import type { DrivenReach } from '../../api/api';
  import { pathOf } from '../../road/strip';
  import { g, speedText } from '../../words/units';
  import { tell } from '../../words/tell';

  /** What the vehicle gives at three speeds, as entered and as the laps show it, with what the laps did there. */
  let { reaches }: { reaches: DrivenReach[] } = $props();
  const SIZE = 168;
  const H = 188;
  const most = $derived(
    Math.max(
      1,
      ...reaches.flatMap((r) =>
        [...r.before.across, ...r.before.along, ...r.after.across, ...r.after.along].map(Math.abs),
      ),
    ),
  );
  const k = $derived((SIZE / 2 - 8) / most);
  const cx = SIZE / 2;
  const cy = 14 + SIZE / 2;
  const ring = (e: DrivenReach['before']): [number, number][] => [
    ...e.across.map((a, i): [number, number] => [cx + a * k, cy - (e.along[i] ?? 0) * k]),
    ...e.across.map((a, i): [number, number] => [cx - a * k, cy - (e.along[i] ?? 0) * k]).toReversed(),
  ];
  const furthest = (r: DrivenReach) => Math.max(0, ...r.across);
</script>

<div class="flex flex-wrap gap-3" data-reaches>
  {#each reaches as r (r.before.speed)}
    <svg
      width={SIZE}
      height={H}
      role="img"
      aria-label={tell('fitReach.at_places_of_the_laps', {
        speed: speedText(r.before.speed),
        along: r.along.length,
        across: g(Math.max(...r.before.across)),
        across2: g(Math.max(...r.after.across)),
        furthest: g(furthest(r)),
      })}
    >
      <path d="M{cx} 14V{H - 6}M4 {cy}H{SIZE - 4}" stroke="var(--road-quiet)" />
      <path
        d={pathOf(ring(r.before), true)}
        fill="none"
        stroke="var(--ink-soft)"
        stroke-width="1.4"
        stroke-dasharray="5 3"
      />
      <path
        d={pathOf(ring(r.after), true)}
        fill="var(--road)"
        fill-opacity="0.5"
        stroke="var(--ink)"
        stroke-width="1.8"
      />
      {#each r.along as a, i (i)}
        <circle
          cx={cx + (i % 2 ? -1 : 1) * (r.across[i] ?? 0) * k}
          cy={cy - a * k}
          r="1.6"
          fill="var(--brake)"
          fill-opacity="0.55"
        />
      {/each}
      <text x={cx} y="11" text-anchor="middle" font-weight="700" style="font-size:12px"
        >{speedText(r.before.speed)}</text
      >
      <text x={cx + 3} y={H - 3} style="font-size:11px">{tell('fitReach.brake')}</text>
    </svg>
  {/each}
</div>
<p class="text-xs">
  {tell('fitReach.broken_the_vehicle_as_entered')}
</p>

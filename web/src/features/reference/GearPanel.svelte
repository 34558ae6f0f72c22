<script lang="ts">
  import type { CornerEntry } from '../../api/api';
  import type { Desk } from './desk.svelte';
  import { inSpeed, metres, plain, signed, speedText, speedUnit } from '../../words/units';
  import { tell } from '../../words/tell';

  /** Each gear on the revs: where it stands at the slowest point and at full throttle. */
  let { desk, entry }: { desk: Desk; entry: CornerEntry } = $props();
  const answer = $derived(desk.answer?.answer);
  const gears = $derived(answer?.gears ?? []);
  const limit = $derived.by(() => {
    const c = gears[0];
    // The fastest safe downshift is 94 % of the limit in that gear.
    return c ? (c.revsAtMinimum / (answer?.minimumSpeed ?? 1)) * (c.safeDown / 0.94) : 10000;
  });
  const W = 276;
  const L = 22;
  const R = 92;
  const x = $derived((revs: number) => L + (Math.max(0, Math.min(1.12 * limit, revs)) / (1.12 * limit)) * (W - L - R));
  const round = (revs: number) => plain(Math.round(revs / 10) * 10);
  const worth = $derived(answer?.exit);
  /** The next gear up, where it can be used: milder, at a price. */
  const calmer = $derived.by(() => {
    const now = gears.find((c) => c.gear === entry.gear);
    const next = gears.find((c) => c.gear === entry.gear + 1 && c.usable);
    if (!now?.usable || !next || now.pull <= 0) return null;
    return { gear: next.gear, milder: 1 - next.pull / now.pull, cost: next.cost - now.cost, bears: next.bears };
  });
  const bears = $derived(gears.find((c) => c.gear === entry.gear)?.bears ?? 1);
</script>

<section class="grid gap-1.5 text-sm" aria-label={tell('gearPanel.gears')}>
  {#if answer}
    <svg
      width={W}
      height={gears.length * 30 + 22}
      class="block"
      role="group"
      aria-label={tell('gearPanel.gears_against_revs')}
    >
      <rect
        x={x(limit)}
        y="0"
        width={Math.max(0, W - R - x(limit))}
        height={gears.length * 30}
        fill="url(#hatch)"
        opacity="0.6"
      />
      <path d="M{x(limit)} 0V{gears.length * 30 + 4}" stroke="var(--brake)" stroke-width="2" />
      <text x={x(limit)} y={gears.length * 30 + 16} text-anchor="middle" style="font-size:11px"
        >{tell('gearPanel.limit', { limit: round(limit) })}</text
      >
      {#each gears as c, i (c.gear)}
        {@const y = i * 30 + 15}
        {@const on = c.gear === entry.gear}
        <g
          role="button"
          tabindex="0"
          aria-pressed={on}
          aria-label={tell('gearPanel.gear_revs_at_the_slowest', {
            gear: c.gear,
            revsAtMinimum: round(c.revsAtMinimum),
            revsAtFull: round(c.revsAtFull),
          })}
          class="cursor-pointer"
          data-gear-row={c.gear}
          opacity={c.usable || on ? 1 : 0.45}
          onclick={() => desk.edit((e) => ({ ...e, gear: c.gear }))}
          onkeydown={(e) => {
            if (e.key === 'Enter' || e.key === ' ') {
              e.preventDefault();
              desk.edit((old) => ({ ...old, gear: c.gear }));
            }
          }}
        >
          <rect
            class="focus-ring"
            x="0"
            y={y - 14}
            width={W}
            height="28"
            fill={on ? 'var(--color-base-100)' : 'transparent'}
            stroke={on ? 'var(--ink)' : 'none'}
            rx="3"
          />
          <text x="6" y={y + 5} font-weight="700" style="font-size:14px">{c.gear}</text>
          <path d="M{x(c.revsAtMinimum)} {y}H{x(c.revsAtFull)}" stroke="var(--throttle)" stroke-width="5" />
          <path d="M{x(c.revsAtMinimum)} {y - 7}v14" stroke="var(--ink)" stroke-width="2" />
          <circle cx={x(c.revsAtFull)} cy={y} r="4.5" fill="var(--throttle)" />
          <text x={W - 4} y={y - 1} text-anchor="end" font-weight="700"
            >{tell('gearPanel.s_over_revs_too_low', {
              hasUsable: !!c.usable,
              cost: signed(c.cost, 2),
              isRevsAtMinimum: c.revsAtMinimum > limit * 0.9,
            })}</text
          >
          <text x={W - 4} y={y + 11} text-anchor="end" style="font-size:10px"
            >{tell('gearPanel.lifts_the_front_down', { hasLifts: !!c.lifts, safeDown: speedText(c.safeDown) })}</text
          >
        </g>
      {/each}
    </svg>
    <p class="text-xs">
      {tell('gearPanel.bar_slowest_point_dot_full')}
    </p>
    {#if calmer}
      <p class="text-xs leading-tight" data-calmer>
        {tell('gearPanel.in_the_tyres_bear_of', {
          gear: entry.gear,
          bears: plain(Math.round(bears * 100)),
          gear2: calmer.gear,
          bears2: plain(Math.round(calmer.bears * 100)),
          milder: plain(Math.round(calmer.milder * 100)),
          cost: signed(calmer.cost, 2),
        })}
      </p>
    {/if}
    <dl class="grid grid-cols-[auto_1fr] gap-x-3 [&>dd]:text-right [&>dt]:opacity-80">
      <dt class="col-span-2">{tell('gearPanel.shifts_down')}</dt>
      <dd class="col-span-2" data-downshifts>
        {#if answer.shifts.down.length === 0}{tell('gearPanel.none')}{/if}
        {#each answer.shifts.down as d (d.gear)}
          <span class="block whitespace-nowrap"
            >{tell('gearPanel.at_too_early', {
              gear: d.gear,
              station: metres(d.station),
              speed: speedText(d.speed),
              hasSafe: !!d.safe,
            })}</span
          >
        {/each}
      </dd>
      {#if answer.shifts.limiterCost != null}
        <dt>{tell('gearPanel.holding_gear_to_the_limiter', { gear: entry.gear })}</dt>
        <dd>{signed(answer.shifts.limiterCost, 2)} s</dd>
      {/if}
      {#if answer.shifts.shortShiftCost != null}
        <dt>{tell('gearPanel.short_shift')}</dt>
        <dd>{signed(answer.shifts.shortShiftCost, 2)} s</dd>
      {/if}
    </dl>
    {#if worth}
      <div class="border-base-300 border-t pt-1" data-exit-worth>
        <strong>{tell('gearPanel.exit')}</strong>
        <p class="leading-tight">
          {tell('gearPanel.1_more_where_full_throttle', {
            speedUnit: speedUnit(),
            inSpeed: plain(worth.seconds / inSpeed(1 / 3.6), 3),
            straight: metres(worth.straight),
            inSpeed2: metres(worth.metres / inSpeed(1 / 3.6), 1),
          })}
        </p>
      </div>
    {/if}
  {/if}
</section>

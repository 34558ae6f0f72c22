<script lang="ts">
  import type { CornerEntry } from '../../api/api';
  import type { Desk } from './desk.svelte';
  import LoadChart from './LoadChart.svelte';
  import { g, inLength, inSpeed, lengthUnit, metres, plain, signed, speedText, speedUnit } from '../../words/units';
  import { few } from '../../words/few';
  import { tell } from '../../words/tell';

  let { desk, entry }: { desk: Desk; entry: CornerEntry } = $props();
  const answer = $derived(desk.answer?.answer);
  const braking = $derived(answer?.braking);
  /** What is asked for is no answer yet: the peak and its grip are told only of the shape that stands here. */
  const answered = $derived(
    !!desk.answer?.entry.pedals && (desk.answer.entry.pedals.peak ?? null) === (entry.pedals?.peak ?? null),
  );

  const SPAN = 30;
  const W = 268;
  const scale = (m: number) => W / 2 + (Math.max(-SPAN, Math.min(SPAN, m)) / SPAN) * (W / 2 - 8);
  const most = $derived(Math.max(braking?.capability ?? 1, braking?.needMean ?? 0) * 1.12);
  const usable = $derived(answer?.gears.filter((c) => c.usable || c.gear === entry.gear) ?? []);
</script>

<section class="text-sm" aria-label={tell('brakePanel.what_it_leads_to')} aria-live="polite">
  {#if entry.slowing === 'BRAKE' && braking}
    <div class="flex items-baseline justify-between">
      <h2 class="text-base font-bold">{tell('brakePanel.braking_marker')}</h2>
      {#if !braking.makesIt}<span class="text-error font-bold">{tell('brakePanel.will_not_make_it')}</span>{/if}
    </div>
    <div class="flex justify-between">
      <span>{tell('brakePanel.need')}</span><strong data-need
        >{tell('brakePanel.g_of_g', { needMean: g(braking.needMean), capability: g(braking.capability) })}</strong
      >
    </div>
    <svg width={W} height="18" class="block" role="img" aria-label={tell('brakePanel.need_against_capability')}>
      <rect width={W} height="13" y="1" fill="var(--road)" />
      <rect
        width={(W * braking.needMean) / most}
        height="13"
        y="1"
        fill="url(#hatch)"
        stroke="var(--brake)"
        stroke-width="1"
      />
      <path d="M{(W * braking.capability) / most} -1V18" stroke="var(--ink)" stroke-width="2.5" />
    </svg>
    <div class="flex justify-between">
      <span>{tell('brakePanel.in_hand_too_late_by', { hasMakesIt: !!braking.makesIt })}</span>
      <strong data-margin
        >{plain(inLength(Math.abs(braking.marginMetres)), 1)}
        {lengthUnit()} · {plain(Math.abs(braking.marginSeconds), 2)} s</strong
      >
    </div>
    <svg width={W} height="30" class="block" role="img" aria-label={tell('brakePanel.marker_now_against_the_last')}>
      {#each Array.from({ length: 13 }, (_, i) => i * 5 - 30) as m (m)}
        <path d="M{scale(m)} 8v{m % 10 === 0 ? 9 : 6}" stroke="var(--ink-soft)" />
      {/each}
      <path d="M{W / 2 - 6} 0h12l-6 9z" fill="var(--brake)" />
      <path d="M{scale(braking.marginMetres)} 4v16" stroke="var(--ink)" stroke-width="2.5" />
      {#if Math.abs(scale(braking.marginMetres) - W / 2) > 40}
        <text x={W / 2} y="29" text-anchor="middle" style="font-size:11px;fill:var(--brake)"
          >{tell('brakePanel.now')}</text
        >
      {/if}
      <text x={scale(braking.marginMetres)} y="29" text-anchor="middle" style="font-size:11px"
        >{tell('brakePanel.last_place')}</text
      >
    </svg>
    {#if desk.answer?.load}<LoadChart load={desk.answer.load} length={desk.road.length} />{/if}
  {:else if entry.slowing === 'LIFT' && desk.answer?.words.braked}
    <h2 class="text-base font-bold">{tell('brakePanel.brakes_for', { corner: desk.answer.words.braked })}</h2>
  {:else}
    <h2 class="text-base font-bold">{tell('brakePanel.flat_lift', { isFlat: entry.slowing === 'FLAT' })}</h2>
    <p>{tell('brakePanel.full_throttle_all_the_way', { isFlat: entry.slowing === 'FLAT' })}</p>
  {/if}
  {#if answer}
    <dl class="grid grid-cols-[auto_1fr] gap-x-3 [&>dd]:text-right [&>dt]:opacity-80">
      <dt>{tell('brakePanel.arrives')}</dt>
      <dd data-arrival>
        {tell('brakePanel.gear', {
          arrivalSpeed: speedText(answer.arrivalSpeed),
          arrivalGear: answer.arrivalGear,
          arrivalRevs: plain(Math.round(answer.arrivalRevs / 10) * 10),
        })}
      </dd>
      <dt>{tell('brakePanel.lowest')}</dt>
      <dd>{tell('brakePanel.gear_2', { minimumSpeed: speedText(answer.minimumSpeed), gear: entry.gear })}</dd>
      <dt>{tell('brakePanel.lap_time')}</dt>
      <dd data-effect>
        {answer.lapEffect === null || answer.lapEffect === undefined
          ? tell('brakePanel.cannot_be_made')
          : tell('brakePanel.s_on_the_best', { lapEffect: signed(answer.lapEffect, 3) })}
      </dd>
      {#if braking && entry.slowing === 'BRAKE'}
        <dt>{tell('brakePanel.5_faster_here', { speedUnit: speedUnit() })}</dt>
        <dd>
          {tell('brakePanel.sooner', {
            distance: metres((braking.sensitivity.perKmh * 5 * 3.6) / (inSpeed(1) || 3.6)),
          })}
        </dd>
        <dt>{tell('brakePanel.5_less_grip')}</dt>
        <dd>{tell('brakePanel.sooner_2', { perPercentGrip: metres(braking.sensitivity.perPercentGrip * 5) })}</dd>
        <dt>{tell('brakePanel.0_1_s_late')}</dt>
        <dd>{tell('brakePanel.gone', { perTenthSecond: metres(braking.sensitivity.perTenthSecond) })}</dd>
      {/if}
    </dl>
  {/if}
  {#each answer?.again ?? [] as again (again.station)}
    <p class="border-warning mt-1 border-l-4 pl-2" data-again>
      {tell('brakePanel.brakes_again_at_to_not', {
        station: metres(again.station),
        from: speedText(again.from),
        to: speedText(again.to),
      })}
    </p>
  {/each}
  {#each answer?.remarks ?? [] as remark (remark)}
    <p class="border-error mt-1 border-l-4 pl-2">{remark}</p>
  {/each}
</section>

<section class="text-sm" aria-label={tell('brakePanel.choices')}>
  <div class="mb-1 flex items-center gap-2">
    <span class="sr-only">{tell('brakePanel.slow_by')}</span>
    <div class="join" role="group" aria-label={tell('brakePanel.slow_by_2')}>
      {#each ['BRAKE', 'LIFT', 'FLAT'] as const as way (way)}
        <button
          class={['btn btn-xs join-item', entry.slowing === way ? 'btn-primary' : '']}
          aria-pressed={entry.slowing === way}
          onclick={() => desk.slowBy(way)}
        >
          {few(way)}
        </button>
      {/each}
    </div>
    {#if entry.slowing === 'BRAKE'}
      <label class="ml-auto flex items-center gap-1">
        {tell('brakePanel.effort')}
        <input
          class="input input-xs w-14 text-right"
          type="number"
          min="5"
          max="100"
          step="5"
          value={Math.round(entry.firstEffort * 100)}
          onchange={(e) => {
            const share = Math.max(0.05, Math.min(1, e.currentTarget.valueAsNumber / 100 || entry.firstEffort));
            desk.edit((old) => ({
              ...old,
              firstEffort: share,
              // An effort that is written on the strip is this one.
              points: old.points.map((p) =>
                p.kind === 'BRAKE' && p.play?.amount != null ? { ...p, play: { ...p.play, amount: share } } : p,
              ),
              pedals: old.pedals ? { ...old.pedals, peak: share } : old.pedals,
            }));
          }}
        />%
      </label>
    {/if}
  </div>
  {#if entry.slowing === 'BRAKE'}
    <p class="mb-1 flex flex-wrap items-center gap-x-2 text-xs" data-shape>
      {#if entry.pedals}
        <span class="flex-1">
          {#if entry.pedals.peak != null}
            {tell('brakePanel.peak_set_to', { peak: plain(entry.pedals.peak * 100) })}{:else if answered}
            {tell('brakePanel.shape_of_the_pedals_peak', { peak: plain((answer?.pressing?.peak ?? 0) * 100) })}{:else}
            {tell('brakePanel.shape_of_the_pedals_its')}{/if}{#if answered && answer?.pressing}{tell(
              'brakePanel.asks_of_the_grip',
              { asks: plain(answer.pressing.asks * 100) },
            )}{/if}
        </span>
        {#if entry.pedals.peak != null}
          <button
            class="link"
            onclick={() =>
              desk.edit((e) => ({ ...e, pedals: e.pedals ? { ...e.pedals, peak: undefined } : undefined }))}
            >{tell('brakePanel.let_the_peak_follow')}</button
          >
        {/if}
        <button
          class="link"
          onclick={() =>
            desk.edit((e) => ({
              ...e,
              pedals: undefined,
              schools: e.schools.filter((s) => s !== 'FRONT_LOADED' && s !== 'PROGRESSIVE'),
            }))}>{tell('brakePanel.no_shape')}</button
        >
      {:else}
        <span class="flex-1">{tell('brakePanel.no_shape_the_brake_follows')}</span>
        <button
          class="link"
          onclick={() => desk.edit((e) => ({ ...e, pedals: { rise: 0.06, hold: 0.5, trail: 0.6, maintain: 0 } }))}
          >{tell('brakePanel.plan_one')}</button
        >
      {/if}
    </p>
  {/if}
  <svg width={W} height="58" class="block" role="group" aria-label={tell('brakePanel.gear_at_the_slowest_point')}>
    {#each usable as c, i (c.gear)}
      {@const w = Math.min(66, W / Math.max(usable.length, 4))}
      {@const on = c.gear === entry.gear}
      <g
        role="button"
        tabindex="0"
        aria-pressed={on}
        aria-label={tell('brakePanel.gear_revs', { gear: c.gear, revsAtMinimum: Math.round(c.revsAtMinimum) })}
        class="cursor-pointer"
        data-gear={c.gear}
        transform="translate({i * w} 0)"
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
          x="1"
          y="1"
          width={w - 3}
          height="55"
          rx="3"
          fill={on ? 'var(--color-base-100)' : 'transparent'}
          stroke={on ? 'var(--ink)' : 'var(--road)'}
          stroke-width={on ? 2 : 1}
        />
        <text x={w / 2} y="17" text-anchor="middle" font-weight="700" style="font-size:14px">{c.gear}</text>
        <text x={w / 2} y="33" text-anchor="middle">{plain(Math.round(c.revsAtMinimum / 10) * 10)}</text>
        <text x={w / 2} y="48" text-anchor="middle" style="font-size:11px">
          {tell('brakePanel.s_over_revs', { hasUsable: !!c.usable, cost: signed(c.cost, 2) })}
        </text>
      </g>
    {/each}
  </svg>
</section>

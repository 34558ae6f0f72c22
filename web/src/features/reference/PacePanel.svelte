<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ask, asProblem, type OwnPace } from '../../api/api';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import Slide from '../../kit/Slide.svelte';
  import { lapTime, plain, signed } from '../../words/units';
  import type { Desk } from './desk.svelte';
  import { tell } from '../../words/tell';
  import { follow } from '../../kit/drag';

  /** How much of what the vehicle can do the driver uses: drawn inside all of it, and pulled there. */
  let { desk }: { desk: Desk } = $props();
  type Driving = OwnPace['driving'];
  type Share = 'braking' | 'turning' | 'traction';
  const FULL: Driving = { braking: 1, turning: 1, traction: 1, margin: 0.15 };
  const LEAST = 0.5;
  /** Share of the lap off the best, and what such drivers are called. */
  const TIERS = [
    { off: 0.105, word: tell('pacePanel.newcomer') },
    { off: 0.07, word: '' },
    { off: 0.045, word: tell('pacePanel.strong_amateur') },
    { off: 0.02, word: '' },
    { off: 0, word: tell('pacePanel.all_of_it') },
  ];

  const pace = $derived(desk.content.pace ?? null);
  const driving = $derived(pace?.driving ?? FULL);
  const id = $derived(desk.view.id);
  const view = createQuery(() => ({
    queryKey: ['pace', id, pace],
    queryFn: () =>
      ask(api.POST('/api/references/{id}/pace/tried', { params: { path: { id } }, body: { pace: pace ?? undefined } })),
    placeholderData: (old) => old,
  }));
  const here = $derived(view.data?.corners.find((c) => c.corner === desk.selected));
  let careful = $state(true);
  let busy = $state(false);
  let told = $state('');
  let problem = $state<ReturnType<typeof asProblem> | null>(null);

  const put = (next: OwnPace | null, key: string) => desk.putPace(next, `pace ${key}`);
  function set(change: Partial<Driving>, key: string) {
    put({ driving: { ...driving, ...change }, corners: pace?.corners ?? [] }, key);
  }
  async function tier(off: number) {
    busy = true;
    problem = null;
    try {
      const body = { off, margin: driving.margin, careful: careful && off > 0 };
      const found = await ask(api.POST('/api/references/{id}/pace/tier', { params: { path: { id } }, body }));
      put(found.pace ?? null, `tier ${off}`);
      desk.settle();
    } catch (e) {
      problem = asProblem(e);
    } finally {
      busy = false;
    }
  }
  /** Takes what the laps of the latest run show. */
  async function fromLaps() {
    busy = true;
    problem = null;
    told = '';
    try {
      const runs = (await ask(api.GET('/api/references/{id}/runs', { params: { path: { id } } }))).runs;
      const run = runs.find((r) => r.laps.some((l) => l.counts));
      if (!run) {
        told = tell('pacePanel.no_laps_count_yet_bring');
        return;
      }
      const laps = await ask(api.GET('/api/runs/{id}/pace', { params: { path: { id: run.id } } }));
      const change: Partial<Driving> = {};
      if (laps.braking != null) change.braking = Math.max(LEAST, laps.braking);
      if (laps.turning != null) change.turning = Math.max(LEAST, laps.turning);
      told = tell('pacePanel.traction_is_not_told_by', {
        name: run.name,
        braking: [
          laps.turning == null
            ? tell('pacePanel.too_few_corners_tell_the')
            : tell('pacePanel.turns_with', { turning: percent(laps.turning) }),
          laps.braking == null
            ? tell('pacePanel.too_little_hard_braking_tells')
            : tell('pacePanel.brakes_with', { braking: percent(laps.braking) }),
        ].join(', '),
      });
      if (Object.keys(change).length) set(change, 'laps');
      desk.settle();
    } catch (e) {
      problem = asProblem(e);
    } finally {
      busy = false;
    }
  }
  /** The corner on the strip, by small steps. */
  function step(by: number) {
    const now = here?.factor ?? 1;
    const factor = Math.round(Math.max(0.5, Math.min(1.2, now + by)) * 100) / 100;
    const others = (pace?.corners ?? []).filter((c) => c.corner !== desk.selected);
    const own = factor === 1 ? [] : [{ corner: desk.selected, factor, why: 'BY_HAND' as const }];
    put({ driving, corners: [...others, ...own] }, `corner ${desk.selected}`);
  }
  const percent = (share: number) => `${plain(Math.round(share * 100))} %`;
  const off = $derived(view.data ? view.data.lapTime / view.data.best - 1 : 0);
  const near = (o: number) => Math.abs(off - o) < 0.002;

  // The drawing: sideways to both sides, braking down, traction up; one g is so many pixels.
  const W = 276;
  const H = 168;
  const reach = $derived(view.data?.reach ?? { across: 1.2, braking: 1, traction: 0.5, speed: 30 });
  const scale = $derived(Math.min(100 / reach.across, (H - 26) / (reach.braking + reach.traction)));
  const middle = $derived({ x: W / 2, y: 12 + reach.traction * scale });
  const outline = (d: Pick<Driving, Share>) => {
    const x = reach.across * d.turning * scale;
    const down = reach.braking * d.braking * scale;
    const up = reach.traction * d.traction * scale;
    const { x: mx, y: my } = middle;
    return `M${mx - x} ${my}A${x} ${down} 0 0 0 ${mx + x} ${my}A${x} ${up} 0 0 0 ${mx - x} ${my}Z`;
  };
  const handles = $derived([
    {
      key: 'braking' as Share,
      word: tell('pacePanel.brakes'),
      x: middle.x,
      y: middle.y + reach.braking * driving.braking * scale,
    },
    {
      key: 'turning' as Share,
      word: tell('pacePanel.turns'),
      x: middle.x + reach.across * driving.turning * scale,
      y: middle.y,
    },
    {
      key: 'traction' as Share,
      word: tell('pacePanel.drives'),
      x: middle.x,
      y: middle.y - reach.traction * driving.traction * scale,
    },
  ]);
  let svg = $state<SVGSVGElement>();
  function pull(event: PointerEvent, held: Share) {
    if (!svg) return;
    const box = svg.getBoundingClientRect();
    const x = event.clientX - box.x - middle.x;
    const y = event.clientY - box.y - middle.y;
    const share =
      held === 'turning'
        ? Math.abs(x) / (reach.across * scale)
        : held === 'braking'
          ? y / (reach.braking * scale)
          : -y / (reach.traction * scale);
    set({ [held]: Math.round(Math.max(LEAST, Math.min(1, share)) * 100) / 100 }, held);
  }
  function key(event: KeyboardEvent, which: Share) {
    const by = { ArrowUp: 0.01, ArrowRight: 0.01, ArrowDown: -0.01, ArrowLeft: -0.01 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    set({ [which]: Math.round(Math.max(LEAST, Math.min(1, driving[which] + by)) * 100) / 100 }, which);
  }
</script>

<section class="grid gap-1.5 text-sm" aria-label={tell('pacePanel.own_pace')}>
  {#if view.data}
    <p aria-live="polite" data-pace-lap>
      <strong class="tabular-nums">{lapTime(view.data.lapTime)}</strong>
      {tell('pacePanel.off_the_best_with_all', {
        isOff: off > 0.0005,
        off: plain(off * 100, 1),
        best: lapTime(view.data.best),
      })}
    </p>
  {/if}
  <svg
    bind:this={svg}
    width={W}
    height={H}
    class="block touch-none"
    role="group"
    aria-label={tell('pacePanel.what_is_used_of_braking')}
  >
    <path d={outline(FULL)} fill="url(#hatch)" stroke="var(--ink-soft)" stroke-dasharray="3 3" />
    <path d={outline(driving)} fill="var(--throttle-fill)" stroke="var(--ink)" stroke-width="1.6" />
    <path
      d="M{middle.x} 4V{H - 4}M4 {middle.y}H{W - 4}"
      stroke="var(--ink-soft)"
      stroke-width="0.6"
      pointer-events="none"
    />
    {#each handles as h (h.key)}
      <g
        role="slider"
        tabindex={desk.mine ? 0 : -1}
        aria-label={tell('pacePanel.with', { word: h.word })}
        aria-valuemin={50}
        aria-valuemax={100}
        aria-valuenow={Math.round(driving[h.key] * 100)}
        class="cursor-grab"
        data-share={h.key}
        onpointerdown={(e) => {
          if (!desk.mine) return;
          e.preventDefault();
          follow(e, {
            onmove: (at) => pull(at, h.key),
            onend: (moved) => {
              if (moved) desk.settle();
            },
          });
        }}
        onkeydown={(e) => desk.mine && key(e, h.key)}
      >
        <circle cx={h.x} cy={h.y} r="14" fill="transparent" />
        <path
          d="M{h.x - 6} {h.y}l6 -6l6 6l-6 6z"
          fill="var(--color-base-100)"
          stroke="var(--ink)"
          stroke-width="2"
          class="focus-ring"
        />
        <text
          x={h.key === 'turning' ? h.x - 12 : h.x + 11}
          y={h.key === 'turning' ? h.y - 9 : h.y + (h.key === 'braking' ? -3 : 12)}
          text-anchor={h.key === 'turning' ? 'end' : 'start'}
          style="font-size:12px;font-weight:600;paint-order:stroke;stroke:var(--color-base-100);stroke-width:3px"
          pointer-events="none">{h.word} {percent(driving[h.key])}</text
        >
      </g>
    {/each}
  </svg>
  <fieldset class="grid gap-1.5" disabled={!desk.mine || busy}>
    <legend class="sr-only">{tell('pacePanel.own_pace')}</legend>
    <div class="flex flex-wrap gap-1" role="group" aria-label={tell('pacePanel.off_the_best')}>
      {#each TIERS as t (t.off)}
        <button
          type="button"
          class={['btn btn-xs', near(t.off) ? 'btn-primary' : '']}
          aria-pressed={near(t.off)}
          data-tier={t.off}
          onclick={() => tier(t.off)}>{t.off > 0 ? `${plain(t.off * 100, 1)} %` : ''} {t.word}</button
        >
      {/each}
      <button type="button" class="btn btn-xs" data-from-laps onclick={fromLaps}
        >{tell('pacePanel.from_my_laps')}</button
      >
    </div>
    <label class="flex items-center gap-1.5 text-xs">
      <input type="checkbox" class="checkbox checkbox-xs" bind:checked={careful} />
      {tell('pacePanel.slower_where_something_hard_is')}
    </label>
    <div class="flex items-center gap-2">
      <span class="w-24">{tell('pacePanel.brakes_earlier_by')}</span>
      <span class="flex-1"
        ><Slide
          label={tell('pacePanel.seconds_before_the_last_place')}
          value={driving.margin}
          min={0.05}
          max={1}
          step={0.05}
          text="{plain(driving.margin, 2)} s"
          name="margin"
          oninput={(v) => set({ margin: v }, 'margin')}
        /></span
      >
    </div>
    {#if here}
      <div class="border-base-300 grid gap-0.5 border-t pt-1" data-pace-corner>
        <div class="flex items-center gap-2">
          <span class="flex-1"
            >{tell('pacePanel.this_corner')} <strong>{percent(here.factor)}</strong> {tell('pacePanel.of_that')}</span
          >
          <button
            type="button"
            class="btn btn-xs btn-square"
            aria-label={tell('pacePanel.less_here')}
            onclick={() => step(-0.01)}>−</button
          >
          <button
            type="button"
            class="btn btn-xs btn-square"
            aria-label={tell('pacePanel.more_here')}
            onclick={() => step(0.01)}>+</button
          >
        </div>
        <p class="text-xs">
          {tell('pacePanel.s_to_the_best_here', {
            seconds: signed(here.seconds, 2),
          })}{#if view.data && off > 0.0005}{tell('pacePanel.s_of_it_with_the', {
              next: plain(here.next, 2),
              someNextTier: view.data.nextTier > 0,
              nextTier: plain(view.data.nextTier * 100, 1),
            })}{/if}.
          {#if here.hard}<strong>{here.warnings.join(' ')}</strong>{/if}
        </p>
      </div>
    {/if}
  </fieldset>
  {#if told}<p class="text-xs" aria-live="polite">{told}</p>{/if}
  {#if problem}<ProblemBox {problem} />{/if}
  {#if JSON.stringify(view.data?.computedWith ?? null) !== JSON.stringify(pace)}
    <p class="text-xs" data-pace-behind>
      {tell('pacePanel.points_and_speeds_on_the')}
      <a class="link" href="#/recompute/{id}?again">{tell('pacePanel.see_what_changes')}</a>
    </p>
  {/if}
</section>

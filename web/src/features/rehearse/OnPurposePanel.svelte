<script lang="ts">
  import { onDestroy } from 'svelte';
  import {
    api,
    ask,
    asProblem,
    type MistakeView,
    type Problem,
    type ReferenceView,
    type RoadView,
  } from '../../api/api';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { pathOf, sampleAt } from '../../road/strip';
  import { cornerWord } from '../../words/words';
  import { metres, plain, signed, speedText } from '../../words/units';
  import { ASKS, replayed } from './rehearse';
  import { tell } from '../../words/tell';

  /** A corner as planned and with a mistake, side by side: on the road, in speed, and what it costs. */
  interface Props {
    session: string;
    reference: ReferenceView;
    road: RoadView;
    corner: string;
    oncorner: (corner: string) => void;
  }
  let { session, reference, road, corner, oncorner }: Props = $props();

  let all = $state.raw<MistakeView[] | null>(null);
  let problem = $state.raw<Problem | null>(null);
  let chosen = $state(0);
  let time = $state(0);
  let playing = $state(false);
  let frame = 0;
  let last = 0;
  const of = $derived(corner || (reference.corners[0]?.id ?? ''));
  const mistake = $derived(all?.[chosen] ?? null);

  $effect(() => {
    const path = { id: session, corner: of };
    all = null;
    problem = null;
    chosen = 0;
    time = 0;
    halt();
    ask(api.GET('/api/sessions/{id}/mistakes/{corner}', { params: { path } })).then(
      (told) => path.corner === of && (all = told),
      (e) => path.corner === of && (problem = asProblem(e)),
    );
  });

  const planned = $derived(mistake ? replayed(mistake.planned) : null);
  const wrong = $derived(mistake ? replayed(mistake.wrong) : null);
  /** The moments from a little before the two differ. */
  const span = $derived.by(() => {
    if (!mistake || !planned || !wrong) return { from: 0, to: 1 };
    const differs = mistake.planned.speed.findIndex((v, i) => Math.abs(v - (mistake.wrong.speed[i] ?? v)) > 0.3);
    const from = Math.max(0, (planned.times[Math.max(0, differs)] ?? 0) - 2);
    // Until a little past the corner: what follows looks alike.
    const at = reference.corners.find((c) => c.id === of);
    const last = (mistake.planned.speed.length - 1) * mistake.planned.step;
    const past = at ? ((((at.exit - mistake.planned.from) % road.length) + road.length) % road.length) + PAST : last;
    const until = planned.when(Math.min(last, past));
    return { from, to: Math.max(from + 1, until) };
  });
  const now = $derived(span.from + time);
  const HEIGHT = 380;
  const PAST = 60;
  let width = $state(800);
  /** Where a vehicle is in the plane, metres, by its place on the stretch. */
  function spot(profile: MistakeView['planned'], along: number): [number, number] {
    const s = profile.from + along;
    const at = (v: number[], x: number) => sampleAt(v, road.step, road.length, x);
    const [x, y] = [at(road.x, s), at(road.y, s)];
    const heading = Math.atan2(at(road.y, s + 2) - at(road.y, s - 2), at(road.x, s + 2) - at(road.x, s - 2));
    const off = profile.offset[Math.min(profile.offset.length - 1, Math.round(along / profile.step))] ?? 0;
    return [x - off * Math.sin(heading), y + off * Math.cos(heading)];
  }
  /** The stretch that is shown, turned so that it runs from left to right, and fitted. */
  const view = $derived.by(() => {
    const of = mistake?.planned;
    if (!of || !planned) return null;
    const first = planned.along(span.from);
    const length = planned.along(span.to);
    const ends = Array.from({ length: 61 }, (_, i) => spot(of, first + ((length - first) * i) / 60));
    const [a, b] = [ends[0], ends[60]];
    if (!a || !b) return null;
    const turn = Math.atan2(b[1] - a[1], b[0] - a[0]);
    const to = ([x, y]: [number, number]): [number, number] => [
      (x - a[0]) * Math.cos(turn) + (y - a[1]) * Math.sin(turn),
      -(x - a[0]) * Math.sin(turn) + (y - a[1]) * Math.cos(turn),
    ];
    const turned = ends.map(to);
    const xs = turned.map((p) => p[0]);
    const ys = turned.map((p) => p[1]);
    const room = 18;
    const [low, high] = [Math.min(...xs) - room, Math.max(...xs) + room];
    const [under, over] = [Math.min(...ys) - room, Math.max(...ys) + room];
    const scale = Math.min(width / (high - low), 260 / (over - under));
    const place = (p: [number, number]): [number, number] => {
      const [x, y] = to(p);
      return [(x - low) * scale, (over - y) * scale];
    };
    const other = mistake?.wrong ?? of;
    const strays = Array.from({ length: 61 }, (_, i) => place(spot(other, first + ((length - first) * i) / 60)));
    const tall = (over - under) * scale;
    return { scale, place, first, length, tall, line: pathOf(ends.map(place)), strays: pathOf(strays) };
  });
  const speeds = $derived.by(() => {
    if (!mistake || !view) return null;
    const top = Math.max(...mistake.planned.speed, ...mistake.wrong.speed);
    const x = (along: number) => ((along - view.first) / (view.length - view.first)) * width;
    const y = (v: number) => 96 - (v / top) * 88;
    const curve = (p: MistakeView['planned']) =>
      pathOf(p.speed.map((v, i) => [x(i * p.step), y(v)] as [number, number]).filter(([at]) => at >= 0 && at <= width));
    return { x, planned: curve(mistake.planned), wrong: curve(mistake.wrong) };
  });
  const where = $derived(planned && wrong ? { planned: planned.along(now), wrong: wrong.along(now) } : null);

  const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
  function play() {
    if (time >= span.to - span.from - 0.05) time = 0;
    playing = true;
    last = performance.now();
    frame = requestAnimationFrame(step);
  }
  function step(at: number) {
    const by = (at - last) / 1000;
    // With reduced motion it goes on by half seconds.
    if (!still || by >= 0.5) {
      time = Math.min(span.to - span.from, time + by);
      last = at;
    }
    if (time >= span.to - span.from) halt();
    else if (playing) frame = requestAnimationFrame(step);
  }
  function halt() {
    playing = false;
    cancelAnimationFrame(frame);
  }
  onDestroy(halt);

  function what(m: MistakeView): string {
    const far = metres(Math.abs(m.metres));
    return `${ASKS.kind(m.kind)} ${far} ${m.metres < 0 ? tell('onPurposePanel.early') : tell('onPurposePanel.late')}`;
  }
  function whose(m: MistakeView): string {
    if (m.whose === 'DRIVEN') return tell('onPurposePanel.yours_in_recorded_laps', { m: m.of });
    if (m.whose === 'BY_HEART') return tell('onPurposePanel.yours_in_laps_by_heart', { m: m.of });
    return tell('onPurposePanel.a_usual_one_a_fifth');
  }
  const cost = (m: MistakeView) =>
    m.seconds != null
      ? tell('onPurposePanel.s_up_to_the_next', { seconds: signed(m.seconds, 2) })
      : m.deep == null
        ? tell('onPurposePanel.the_corner_is_not_made')
        : tell('onPurposePanel.the_corner_is_not_made_2', { deep: metres(m.deep) });
</script>

<section class="grid grid-cols-[minmax(0,1fr)] gap-2" data-on-purpose>
  <div class="flex flex-wrap items-center gap-2">
    <select
      class="select select-sm w-auto"
      aria-label={tell('onPurposePanel.corner')}
      value={of}
      onchange={(e) => oncorner(e.currentTarget.value)}
    >
      {#each reference.corners as c (c.id)}<option value={c.id}>{cornerWord(c)}</option>{/each}
    </select>
    {#each all ?? [] as m, i (i)}
      <button
        class={['btn btn-sm min-h-9', chosen === i ? 'btn-primary' : '']}
        aria-pressed={chosen === i}
        onclick={() => {
          halt();
          chosen = i;
          time = 0;
        }}>{what(m)}</button
      >
    {/each}
  </div>
  {#if problem}
    <ProblemBox {problem} />
  {:else if !all}
    <p role="status">{tell('onPurposePanel.driving_it_wrong')}</p>
  {:else if !mistake}
    <p>{tell('onPurposePanel.nothing_goes_wrong_here_that')}</p>
  {:else}
    <p class="text-lg" data-mistake={mistake.whose}>
      <strong>{what(mistake)}</strong>{tell('onPurposePanel.from_the_seat', {
        mistake: whose(mistake),
        mistake2: cost(mistake),
        hasLook: !!mistake.look,
        look: mistake.look,
      })}
    </p>
    <div bind:clientWidth={width} class="bg-base-100 border-base-300 rounded border">
      {#if view && speeds && where && planned && wrong}
        {@const right = view.place(spot(mistake.planned, where.planned))}
        {@const off = view.place(spot(mistake.wrong, where.wrong))}
        <svg
          {width}
          height={Math.min(HEIGHT, view.tall + 110)}
          role="img"
          aria-label={tell('onPurposePanel.the_plan_and_the_mistake')}
        >
          <path d={view.line} fill="none" stroke="var(--road)" stroke-width={11 * view.scale} stroke-linecap="round" />
          <path d={view.line} fill="none" stroke="var(--turn)" stroke-width="1.5" />
          <path d={view.strays} fill="none" stroke="var(--brake)" stroke-width="1.5" stroke-dasharray="6 3" />
          <rect data-planned x={right[0] - 6} y={right[1] - 6} width="12" height="12" fill="var(--turn)" />
          <circle data-wrong cx={off[0]} cy={off[1]} r="7" fill="none" stroke="var(--brake)" stroke-width="3" />
          <g transform="translate(0 {view.tall + 8})">
            <path d={speeds.planned} fill="none" stroke="var(--turn)" stroke-width="2" />
            <path d={speeds.wrong} fill="none" stroke="var(--brake)" stroke-width="2" stroke-dasharray="6 3" />
            <path d="M{speeds.x(where.planned)} 0v96" stroke="var(--turn)" />
            <path d="M{speeds.x(where.wrong)} 0v96" stroke="var(--brake)" stroke-dasharray="6 3" />
          </g>
        </svg>
      {/if}
    </div>
    {#if where && planned && wrong}
      <div class="flex flex-wrap items-center gap-3">
        {#if playing}
          <button class="btn min-h-11" onclick={halt}>{tell('onPurposePanel.stop')}</button>
        {:else}
          <button class="btn btn-primary min-h-11" onclick={play}>{tell('onPurposePanel.drive_both')}</button>
        {/if}
        <input
          type="range"
          class="range range-sm flex-1"
          aria-label={tell('onPurposePanel.seconds')}
          min="0"
          max={span.to - span.from}
          step="0.05"
          bind:value={time}
          oninput={halt}
        />
        <span class="text-sm tabular-nums" data-apart>
          {tell('onPurposePanel.plan_mistake_m_ahead_behind', {
            now: speedText(planned.speed(now)),
            now2: speedText(wrong.speed(now)),
            planned: plain(Math.abs(where.wrong - where.planned), 0),
            isWrong: where.wrong >= where.planned,
          })}
        </span>
      </div>
    {/if}
  {/if}
</section>

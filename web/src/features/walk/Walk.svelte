<script lang="ts">
  import { onDestroy, onMount } from 'svelte';
  import { api, ask, asProblem, type Landmark, type Problem, type RoadView, type Zone } from '../../api/api';
  import { keepForTheWalk } from '../../api/offline';
  import { pathOf, sampleAt } from '../../road/strip';
  import { apart } from '../../road/points';
  import { SurveyDesk } from '../survey/survey.svelte';
  import {
    cornerAt,
    LANDMARKS,
    LIMIT_LINES,
    nameOf,
    newKerb,
    newLandmark,
    newLimit,
    newZone,
    PROFILES,
    ZONES,
    type KerbProfile,
    type LandmarkKind,
    type Sort,
    type Thing,
    type ZoneKind,
  } from '../../road/things';
  import { metres } from '../../words/units';
  import { deviceWalker, onRoad, simulatedWalker, type Fix } from './walk.svelte';
  import { cornerWord } from '../../words/words';
  import LandmarkShape from '../../road/LandmarkShape.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { tell } from '../../words/tell';

  let { params }: { params: { id: string } } = $props();
  // svelte-ignore state_referenced_locally
  const id = params.id;
  const desk = new SurveyDesk(id);

  let road = $state.raw<RoadView | null>(null);
  let problem = $state<Problem | null>(null);
  let station = $state(0);
  let known = $state<'device' | 'walker' | 'hand'>('hand');
  let words = $state('');
  let sheet = $state<'' | 'landmark' | 'kerb' | 'zone' | 'limit' | 'level'>('');
  let left = $state(true);
  let last = $state<{ sort: Sort; id: string } | null>(null);
  let open = $state<{ sort: 'kerbs' | 'zones'; id: string } | null>(null);
  let level = $state(0);
  let zoneKind = $state<ZoneKind>('DAMP');
  let stop: (() => void) | null = null;
  // Road and place are both at hand.
  let ready = $state(false);

  onMount(async () => {
    try {
      road = await ask(api.GET('/api/layouts/{id}/road', { params: { path: { id }, query: { step: 2 } } }));
      await desk.open();
      ready = true;
      void keepForTheWalk(id);
    } catch (e) {
      problem = asProblem(e);
    }
  });
  onDestroy(() => {
    stop?.();
    desk.close();
  });

  const length = $derived(road?.length ?? 1);
  const wrap = (s: number) => ((s % length) + length) % length;
  const round = (s: number) => Math.round(wrap(s));

  function follow(how: 'device' | 'walker') {
    stop?.();
    stop = null;
    words = '';
    const place = desk.view?.place;
    if (!road || !place) {
      words = tell('walk.nobody_has_said_where_on');
      known = 'hand';
      return;
    }
    known = how;
    let around: number | null = null;
    const r = road;
    const walker = how === 'device' ? deviceWalker : simulatedWalker(r, place, station);
    stop = walker.start(
      (fix: Fix) => {
        const at = onRoad(r, place, fix, around);
        if (!at) {
          words = tell('walk.you_are_not_at_the');
          return;
        }
        around = at.station;
        station = at.station;
        words = fix.accuracy > 12 ? tell('walk.position_to_m_only', { accuracy: Math.round(fix.accuracy) }) : '';
      },
      (said) => {
        words = said;
        known = 'hand';
      },
    );
  }
  function byHand(to: number) {
    stop?.();
    stop = null;
    known = 'hand';
    station = wrap(to);
  }
  /** On to the next thing that stands there already, which is where the walker now is. */
  const ahead = $derived(
    [...desk.things.landmarks]
      .map((l) => ({ l, by: wrap(l.station - station) }))
      .filter((k) => k.by > 1)
      .sort((a, b) => a.by - b.by)[0],
  );

  const corner = $derived(cornerAt(desk.corners, length, wrap(station)));
  const inside = $derived(!!corner && wrap(station - corner.entry) <= wrap(corner.exit - corner.entry));
  const cornerId = $derived(corner?.id ?? '');

  function made(sort: Sort, thing: Thing) {
    desk.put(sort, [thing]);
    last = { sort, id: thing.id };
    sheet = '';
    navigator.vibrate?.(30);
  }
  function addLandmark(kind: LandmarkKind) {
    made('landmarks', newLandmark(kind, round(station), left, cornerId));
  }
  function startKerb(profile: KerbProfile) {
    const k = { ...newKerb(round(station), round(station + 5), left, corner, length), profile };
    made('kerbs', k);
    open = { sort: 'kerbs', id: k.id };
  }
  function startZone(kind: ZoneKind, side: Zone['side']) {
    const z = newZone(
      kind,
      round(station),
      round(station + 5),
      kind === 'BEYOND' && side === 'BOTH' ? (left ? 'LEFT' : 'RIGHT') : side,
    );
    made('zones', z);
    open = { sort: 'zones', id: z.id };
  }
  /** The kerb or zone that was begun ends where the walker is now. */
  function end() {
    const o = open;
    open = null;
    if (!o) return;
    const thing = (desk.things[o.sort] as (Zone & { from: number; to: number })[]).find((t) => t.id === o.id);
    if (thing && wrap(station - thing.from) > 1 && wrap(station - thing.from) < length / 2) {
      desk.put(o.sort, [{ ...thing, to: round(station) }]);
    }
  }
  /** A level laid on the road: across it, the computation takes what it reads; along it, it is a note. */
  function note(what: 'gradient' | 'camber') {
    const text = tell('walk.gradient_up_down', { someLevel: level > 0, level: Math.abs(level) });
    if (what === 'camber') {
      const z = newZone('LEVEL', round(station - 10), round(station + 10), level < 0 ? 'RIGHT' : 'LEFT');
      made('zones', { ...z, amount: Math.abs(level) / 100 });
    } else {
      made('landmarks', {
        ...newLandmark('OTHER', round(station), left, cornerId, text),
        height: 0,
        out: -1,
        note: text,
      });
    }
  }
  function edit(change: Record<string, unknown>, key: string) {
    const l = last;
    if (!l) return;
    const thing = (desk.things[l.sort] as Thing[]).find((t) => t.id === l.id);
    if (thing) desk.put(l.sort, [{ ...thing, ...change } as Thing], `${l.id} ${key}`);
  }
  function photo(files: FileList | null) {
    const file = files?.[0];
    if (!file) return;
    const picture = desk.addPhoto(file);
    const l = last;
    if (l && l.sort !== 'limits' && l.sort !== 'places') edit({ photo: picture }, 'photo');
    else
      made('landmarks', {
        ...newLandmark('OTHER', round(station), left, cornerId, tell('walk.picture')),
        photo: picture,
      });
  }
  const lastThing = $derived.by(() => {
    const l = last;
    return l ? ((desk.things[l.sort] as Thing[]).find((t) => t.id === l.id) ?? null) : null;
  });

  // The strip stands upright: the way walked is up the screen.
  let width = $state(390);
  let height = $state(300);
  const BEHIND_M = 30;
  const AHEAD_M = 110;
  const py = $derived((s: number) => height - 8 - ((s - station + BEHIND_M) / (BEHIND_M + AHEAD_M)) * (height - 16));
  const k = $derived((width * 0.34) / 14);
  const px = $derived((offset: number) => width / 2 - offset * k);
  const near = $derived((s: number) => station + apart(station, s, length));
  const steps = $derived(Array.from({ length: 36 }, (_, i) => station - BEHIND_M + i * 4));
  const edge = $derived((s: number, l: boolean) =>
    road ? (l ? sampleAt(road.left, road.step, road.length, s) : -sampleAt(road.right, road.step, road.length, s)) : 0,
  );
  const seen = $derived(
    desk.things.landmarks
      .map((l: Landmark) => ({ ...l, at: near(l.station) }))
      .filter((l) => l.at > station - BEHIND_M && l.at < station + AHEAD_M),
  );
  const spans = $derived(
    [
      ...desk.things.zones.map((z) => ({ ...z, sort: 'zones' as const })),
      ...desk.things.kerbs.map((z) => ({ ...z, sort: 'kerbs' as const })),
    ]
      .map((z) => ({ thing: z, a: near(z.from), b: near(z.from) + wrap(z.to - z.from) }))
      .filter((z) => z.b > station - BEHIND_M && z.a < station + AHEAD_M),
  );
  const bends = $derived(
    desk.corners
      .map((c) => ({ c, a: near(c.entry), b: near(c.entry) + wrap(c.exit - c.entry) }))
      .filter((c) => c.b > station - BEHIND_M && c.a < station + AHEAD_M),
  );
</script>

<svelte:window ononline={() => void desk.flush()} />

<main
  class="mx-auto flex h-dvh max-w-[480px] flex-col"
  data-walk
  data-waiting={desk.waiting}
  data-station={Math.round(station)}
>
  <header class="flex items-center gap-2 px-3 py-1">
    <a class="link text-sm" href="#/survey/{id}">{tell('walk.survey')}</a>
    <strong class="flex-1 truncate text-center">{desk.view?.summary.circuit ?? ''}</strong>
    <span class="text-sm" role="status" data-sent>
      {tell('walk.kept_here_sending_all_sent', {
        hasOffline: !!desk.offline,
        waiting: desk.waiting,
        hasWaiting: !!desk.waiting,
      })}
    </span>
  </header>
  {#if problem}<div class="px-3"><ProblemBox {problem} /></div>{/if}
  {#if desk.problem}<div class="px-3">
      <ProblemBox problem={desk.problem} />{#if desk.aside}<button
          type="button"
          class="btn btn-sm mt-1"
          onclick={() => desk.makeAgain()}>{tell('walk.make_my_change_all_the')}</button
        >{/if}
    </div>{/if}
  <p class="flex items-baseline gap-3 px-3">
    <strong class="text-2xl">{metres(wrap(station))}</strong>
    <span class="flex-1"
      >{corner
        ? tell('walk.in_towards_left_right', {
            hasInside: !!inside,
            corner: cornerWord(corner),
            hasLeft: !!corner.left,
          })
        : ''}</span
    >
    {#if words}<span class="text-right text-sm">{words}</span>{/if}
  </p>
  <div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    {#if road}
      <svg {width} {height} class="block" role="img" aria-label={tell('walk.the_road_ahead_upwards')}>
        <path
          d={pathOf(
            [
              ...steps.map((s): [number, number] => [px(edge(s, true)), py(s)]),
              ...steps.toReversed().map((s): [number, number] => [px(edge(s, false)), py(s)]),
            ],
            true,
          )}
          fill="var(--road)"
          stroke="var(--road-edge)"
        />
        {#each bends as b (b.c.id)}
          <rect
            x={px(edge(b.a, true))}
            y={py(b.b)}
            width={px(edge(b.a, false)) - px(edge(b.a, true))}
            height={Math.max(0, py(b.a) - py(b.b))}
            fill="var(--road-quiet)"
            opacity="0.7"
          />
          <text x={width / 2} y={Math.max(16, py(b.b) + 16)} text-anchor="middle" font-weight="700"
            >{b.c.left ? '↰' : '↱'} {cornerWord(b.c)}</text
          >
        {/each}
        {#each spans as z (z.thing.id)}
          {@const kerb = z.thing.sort === 'kerbs'}
          {@const l = kerb ? (z.thing as { left: boolean }).left : (z.thing as { side: string }).side !== 'RIGHT'}
          {@const x0 = px(edge(z.a, l))}
          <path
            d="M{x0 + (l ? -1 : 1) * (kerb ? 6 : 14)} {py(z.a)}V{py(z.b)}"
            stroke={kerb ? 'var(--ink)' : 'var(--sky)'}
            stroke-width={kerb ? 9 : 4}
            stroke-dasharray={kerb ? '5 3' : undefined}
          />
          <text x={x0 + (l ? -20 : 20)} y={(py(z.a) + py(z.b)) / 2} text-anchor={l ? 'end' : 'start'}
            >{nameOf(z.thing.sort, z.thing as unknown as Thing)}</text
          >
        {/each}
        {#each seen as l (l.id)}
          <g transform="translate({px(edge(l.at, l.left))} {py(l.at)}) rotate({l.left ? -90 : -90})">
            <g transform="scale(0.9)"><LandmarkShape landmark={{ ...l, left: l.left }} quiet /></g>
          </g>
          <text x={px(edge(l.at, l.left)) + (l.left ? -30 : 30)} y={py(l.at) + 4} text-anchor={l.left ? 'end' : 'start'}
            >{nameOf('landmarks', l)}</text
          >
        {/each}
        <path
          d="M{px(edge(station, true)) - 8} {py(station)}H{px(edge(station, false)) + 8}"
          stroke="var(--throttle)"
          stroke-width="3"
        />
        <circle cx={width / 2} cy={py(station)} r="8" fill="var(--throttle)" />
      </svg>
    {/if}
  </div>

  {#if lastThing && last && !sheet}
    <div class="border-base-300 flex items-center gap-2 border-t px-3 py-1">
      <span class="flex-1 truncate"
        >{tell('walk.at', {
          lastThing: nameOf(last.sort, lastThing),
          station: metres('station' in lastThing ? lastThing.station : 'from' in lastThing ? lastThing.from : station),
        })}</span
      >
      {#if 'label' in lastThing}
        <input
          class="input w-24"
          aria-label={tell('walk.what_it_reads_or_is')}
          value={lastThing.label}
          onchange={(e) => edit({ label: e.currentTarget.value }, 'label')}
        />
      {/if}
      <button type="button" class="btn min-h-11" onclick={() => desk.undo()}>{tell('walk.undo')}</button>
    </div>
  {/if}

  {#if sheet === 'landmark'}
    <div class="grid grid-cols-4 gap-2 p-3" role="group" aria-label={tell('walk.which_landmark')}>
      {#each Object.keys(LANDMARKS) as LandmarkKind[] as kind (kind)}
        <button
          type="button"
          class="btn h-16 flex-col gap-0 px-0 text-xs"
          data-walk-kind={kind}
          onclick={() => addLandmark(kind)}
        >
          <svg width="40" height="32" aria-hidden="true"
            ><g transform="translate(20 {LANDMARKS[kind].out < 0 ? 10 : 30})"
              ><LandmarkShape landmark={{ kind, label: '', left: true, readable: true }} quiet /></g
            ></svg
          >
          {LANDMARKS[kind].word}
        </button>
      {/each}
    </div>
  {:else if sheet === 'kerb'}
    <div class="grid grid-cols-2 gap-2 p-3" role="group" aria-label={tell('walk.which_kerb')}>
      {#each Object.entries(PROFILES) as [profile, word] (profile)}
        <button
          type="button"
          class="btn h-14"
          data-walk-profile={profile}
          onclick={() => startKerb(profile as KerbProfile)}>{word}</button
        >
      {/each}
    </div>
  {:else if sheet === 'zone'}
    <div class="grid gap-2 p-3">
      <select class="select h-12 w-full" aria-label={tell('walk.kind_of_zone')} bind:value={zoneKind}>
        {#each Object.entries(ZONES) as [kind, z] (kind)}<option value={kind}>{z.word}</option>{/each}
      </select>
      <div class="grid grid-cols-3 gap-2">
        {#each [['LEFT', tell('few.left')], ['BOTH', tell('walk.whole_road')], ['RIGHT', tell('few.right')]] as const as [side, word] (side)}
          <button type="button" class="btn h-14" data-walk-side={side} onclick={() => startZone(zoneKind, side)}
            >{word}</button
          >
        {/each}
      </div>
    </div>
  {:else if sheet === 'limit'}
    <div class="grid grid-cols-1 gap-2 p-3" role="group" aria-label={tell('walk.what_counts_as_the_edge')}>
      {#each Object.entries(LIMIT_LINES) as [line, word] (line)}
        <button
          type="button"
          class="btn h-12"
          onclick={() => made('limits', { ...newLimit(cornerId, left), line: line as keyof typeof LIMIT_LINES })}
          >{word}</button
        >
      {/each}
    </div>
  {:else if sheet === 'level'}
    <div class="grid gap-2 p-3">
      <label class="flex items-center gap-3">
        <span class="flex-1">{tell('walk.the_level_reads')}</span>
        <button
          type="button"
          class="btn btn-square size-12"
          aria-label={tell('walk.less')}
          onclick={() => (level = Math.round((level - 0.5) * 10) / 10)}>−</button
        >
        <input class="input h-12 w-20 text-center" type="number" step="0.5" bind:value={level} />
        <button
          type="button"
          class="btn btn-square size-12"
          aria-label={tell('walk.more')}
          onclick={() => (level = Math.round((level + 0.5) * 10) / 10)}>+</button
        >
      </label>
      <div class="grid grid-cols-2 gap-2">
        <button type="button" class="btn h-14" onclick={() => note('gradient')}>{tell('walk.gradient_up')}</button>
        <button type="button" class="btn h-14" onclick={() => note('camber')}
          >{tell('walk.camber_down_to_the_left')}</button
        >
      </div>
    </div>
  {/if}

  <footer class="grid gap-2 p-3">
    {#if open}
      <button type="button" class="btn btn-primary h-14" onclick={end}>
        {tell('walk.it_ends_here_the_kerb', { isKerbs: open.sort === 'kerbs' })}
      </button>
    {/if}
    <div class="flex gap-2">
      <div class="join flex-1">
        <button
          type="button"
          class={['btn join-item h-12 flex-1', left ? 'btn-primary' : '']}
          aria-pressed={left}
          onclick={() => (left = true)}>{tell('walk.left')}</button
        >
        <button
          type="button"
          class={['btn join-item h-12 flex-1', left ? '' : 'btn-primary']}
          aria-pressed={!left}
          onclick={() => (left = false)}>{tell('walk.right')}</button
        >
      </div>
      <button
        type="button"
        class="btn h-12"
        onclick={() => byHand(station - 10)}
        aria-label={tell('walk.ten_metres_back')}>−10</button
      >
      <button
        type="button"
        class="btn h-12"
        onclick={() => byHand(station + 10)}
        aria-label={tell('walk.ten_metres_on')}>+10</button
      >
    </div>
    <div class="grid grid-cols-3 gap-2">
      {#each [['landmark', tell('walk.landmark')], ['kerb', tell('walk.kerb')], ['zone', tell('walk.zone')], ['limit', tell('walk.limit')], ['level', tell('walk.level')]] as const as [key, word] (key)}
        <button
          type="button"
          class={['btn h-14 text-base', sheet === key ? 'btn-primary' : '']}
          aria-expanded={sheet === key}
          onclick={() => (sheet = sheet === key ? '' : key)}>{word}</button
        >
      {/each}
      <label class="btn h-14 text-base">
        {tell('walk.picture')}
        <input
          type="file"
          accept="image/*"
          capture="environment"
          class="sr-only"
          onchange={(e) => photo(e.currentTarget.files)}
        />
      </label>
    </div>
    <div class="grid grid-cols-3 gap-2">
      <button
        type="button"
        class={['btn h-11', known === 'device' ? 'btn-primary' : '']}
        disabled={!ready}
        onclick={() => follow('device')}>{tell('walk.by_position')}</button
      >
      <button
        type="button"
        class={['btn h-11', known === 'walker' ? 'btn-primary' : '']}
        disabled={!ready}
        onclick={() => follow('walker')}>{tell('walk.simulated')}</button
      >
      <button type="button" class="btn h-11" disabled={!ahead} onclick={() => ahead && byHand(ahead.l.station)}>
        {ahead ? tell('walk.at_2', { ahead: nameOf('landmarks', ahead.l) }) : tell('walk.next_landmark')}
      </button>
    </div>
  </footer>
</main>

<script lang="ts">
  import { onDestroy, untrack } from 'svelte';
  import type { Corner, LensView, ReferenceView, TraceView } from '../../api/api';
  import { session } from '../../api/session.svelte';
  import { POINTS } from '../../road/points';
  import { cornerWord } from '../../words/words';
  import { lapTime, metres, plain, speedText } from '../../words/units';
  import {
    aligned,
    filmTimeOf,
    frameMetres,
    keepMarks,
    keptMarks,
    lapTimeOf,
    rateOf,
    stationIn,
    timeAt,
    nextPoint,
    type Mark,
  } from './film';
  import { partOf, Stills, type Sight } from './stills.svelte';
  import Beside from './Beside.svelte';
  import PedalsNow from './PedalsNow.svelte';
  import StillsPanel from './StillsPanel.svelte';
  import StillsPicture from './StillsPicture.svelte';
  import { tell } from '../../words/tell';

  /** A film of the lap beside its traces: one cursor for both. The film stays on this disk. */
  interface Props {
    reference: string;
    trace: TraceView;
    corners: Corner[];
    at: number | null;
    onat: (station: number | null) => void;
    /** Told when there is a film to make room for. */
    onopen?: () => void;
    onclose?: () => void;
  }
  let { reference, trace, corners, at, onat, onopen, onclose }: Props = $props();

  type WithFrames = HTMLVideoElement & {
    requestVideoFrameCallback?: (f: (now: number, frame: { mediaTime: number }) => void) => number;
  };
  let video = $state<WithFrames>();
  let file = $state.raw<File | null>(null);
  let url = $state('');
  let problem = $state('');
  let marks = $state.raw<Mark[]>([]);
  let rate = $state(30);
  let playing = $state(false);
  let slow = $state(1);
  let shown = $state(0);
  let frames: number[] = [];
  let watched: WithFrames | null = null;
  // What moved the cursor is not moved by it again.
  let own: number | null = null;

  const found = $derived(aligned(marks));
  const alignment = $derived(typeof found === 'object' ? found : null);
  const wrong = $derived(typeof found === 'string' ? found : '');
  const now = $derived(alignment ? lapTimeOf(alignment, shown) : null);
  const here = $derived(now === null ? null : stationIn(trace, now));
  const speed = $derived(here === null ? 0 : (trace.speed[Math.round(here / trace.step) % trace.speed.length] ?? 0));
  const corner = $derived(
    here === null
      ? null
      : (corners.find((c) =>
          c.entry <= c.exit ? here >= c.entry && here <= c.exit : here >= c.entry || here <= c.exit,
        ) ?? null),
  );

  const stills = $derived(new Stills(reference));
  const next = $derived(nextDue(stills.view, here));
  // The survey is asked for when there is a film to compare it with.
  $effect(() => {
    if (url) void untrack(() => stills).open(untrack(() => lens));
  });
  const DEMO_LENS: LensView = { projection: 'STRAIGHT', degrees: 80, turned: 0 };
  let lens: LensView | null = null;
  let keep = $state(false);
  let two = $state(false);
  let picture = $state.raw<Blob | null>(null);
  /** What is due next from a place, by the reference. */
  function nextDue(view: ReferenceView | null, at: number | null) {
    const due = view && at !== null ? nextPoint(view.working.content.corners, at, view.length) : null;
    const of = due && view?.corners.find((c) => c.id === due.corner);
    if (!due || !of) return '';
    const word = cornerWord(of);
    return tell('filmPanel.in_corner', {
      word: POINTS[due.kind].word,
      ahead: metres(due.ahead),
      hasWord: !!/^\d/.test(word),
      word2: word,
    });
  }
  async function press(sight: Sight) {
    video?.pause();
    // The picture that is kept is the one that was pressed.
    picture = null;
    if (stills.first && !stills.place && video) void partOf(video, sight).then((part) => (picture = part));
    await stills.press(trace.id, sight, rate);
  }

  function open(e: Event & { currentTarget: HTMLInputElement }) {
    const chosen = e.currentTarget.files?.[0];
    if (chosen) show(chosen);
  }
  /** The drawn film that ships with the demo. */
  async function made() {
    try {
      const response = await fetch('/api/demo/film.webm');
      if (!response.ok) throw new Error(String(response.status));
      show(new File([await response.blob()], 'demo.webm', { type: 'video/webm' }), DEMO_LENS);
    } catch {
      problem = tell('filmPanel.the_demo_s_film_does');
    }
  }
  function show(chosen: File, its: LensView | null = null) {
    lens = its;
    URL.revokeObjectURL(url);
    file = chosen;
    problem = '';
    frames = [];
    url = URL.createObjectURL(chosen);
    onopen?.();
  }
  const lap = $derived(trace.id);
  /** The marks are of one lap: another lap of the same film has its own. */
  $effect(() => {
    const of = lap;
    const its = file;
    marks = [];
    if (!its) return;
    void keptMarks(of, its)
      .catch(() => [])
      .then((kept) => {
        // What was said meanwhile stands.
        if (lap !== of || file !== its || marks.length) return;
        marks = kept;
        // A film that is known again opens where the cursor is.
        if (video && video.readyState >= 2) ready();
      });
  });
  function away() {
    video?.pause();
    URL.revokeObjectURL(url);
    url = '';
    file = null;
    playing = false;
    onclose?.();
  }
  function ready() {
    if (!video) return;
    if (watched !== video) watch((watched = video));
    if (alignment) seek(filmTimeOf(alignment, at === null ? 0 : timeAt(trace, at)));
  }
  /** Every frame that is presented says its own time; the cursor goes by that and not by the clock. */
  function watch(of: WithFrames) {
    of.requestVideoFrameCallback?.((_, frame) => {
      if (of !== video) return;
      take(frame.mediaTime);
      watch(of);
    });
  }
  function take(film: number) {
    shown = film;
    frames = [...frames.slice(-40), film];
    if (playing) rate = rateOf(frames) ?? rate;
    if (!alignment) return;
    const s = stationIn(trace, lapTimeOf(alignment, film));
    own = s;
    onat(s);
  }
  function seek(film: number) {
    if (!video) return;
    video.currentTime = Math.max(0, Math.min(video.duration || film, film));
  }
  // The cursor of the traces leads while the film stands.
  $effect(() => {
    const to = at;
    untrack(() => {
      if (!video || playing || !alignment || to === null || to === own) return;
      seek(filmTimeOf(alignment, timeAt(trace, to)));
    });
  });
  function play() {
    if (!video) return;
    frames = [];
    video.playbackRate = slow;
    void video.play().catch(() => (problem = tell('filmPanel.the_browser_does_not_play')));
  }
  /** Corner by corner: to some way before the next one. */
  const BEFORE = 120;
  function nextCorner() {
    if (!alignment || !corners.length) return;
    video?.pause();
    const length = trace.times.length * trace.step;
    const from = here ?? 0;
    const ahead = (c: Corner) => (((c.entry - BEFORE - from - 1) % length) + length) % length;
    const to = corners.reduce((best, c) => (ahead(c) < ahead(best) ? c : best));
    seek(filmTimeOf(alignment, timeAt(trace, (from + 1 + ahead(to)) % length)));
  }
  function frame(by: number) {
    video?.pause();
    // In the middle of a frame there is no doubt which one it is; where frames are left out one goes on all the same.
    const middle = (Math.round(shown * rate) + by + 0.5) / rate;
    seek(by > 0 && video ? Math.max(middle, video.currentTime + by / rate) : middle);
  }
  async function mark(lap: number) {
    const other = marks.filter((m) => Math.abs(m.film - shown) >= 5);
    marks = [...other.slice(-1), { film: shown, lap }].sort((a, b) => a.film - b.film);
    if (file) await keepMarks(trace.id, file, marks).catch(() => undefined);
  }
  const onCursor = () => at !== null && void mark(timeAt(trace, at));
  async function forget() {
    marks = [];
    if (file) await keepMarks(trace.id, file, []).catch(() => undefined);
  }
  function keys(e: KeyboardEvent) {
    if (!url || e.ctrlKey || e.metaKey || (e.target as HTMLElement).closest?.('input, select, textarea')) return;
    if (e.key === ',' || e.key === '.') {
      e.preventDefault();
      frame(e.key === ',' ? -1 : 1);
    }
  }
  onDestroy(() => URL.revokeObjectURL(url));
</script>

<svelte:window onkeydown={keys} />

<section
  class="bg-base-100 border-base-300 grid gap-2 rounded border p-2"
  aria-label={tell('filmPanel.film')}
  data-film={shown.toFixed(5)}
>
  {#if !url}
    <label class="flex flex-wrap items-center gap-3 text-sm"
      ><span>{tell('filmPanel.film_of_this_lap_from')}</span>
      <input class="file-input file-input-sm" type="file" accept="video/*" onchange={open} /></label
    >
    {#if session.demo}
      <p class="text-sm">
        <button class="btn btn-xs" onclick={() => void made()}>{tell('filmPanel.take_the_demo_s_film')}</button>
        {tell('filmPanel.drawn_of_the_quickest_lap')}
      </p>
    {/if}
    {#if problem}<p role="alert" class="text-sm"><strong>{problem}</strong></p>{/if}
  {:else}
    <div class={['grid gap-3', two ? 'md:grid-cols-2' : 'md:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)]']}>
      <div class="relative self-start">
        <video
          bind:this={video}
          src={url}
          muted
          playsinline
          preload="auto"
          class="w-full rounded bg-black"
          onloadeddata={ready}
          onseeked={() => video && !video.requestVideoFrameCallback && take(video.currentTime)}
          onplay={() => (playing = true)}
          onpause={() => (playing = false)}
          onerror={() => (problem = tell('filmPanel.this_browser_does_not_play'))}
        ></video>
        {#if alignment}<StillsPicture {stills} {here} {keep} onpress={(s) => void press(s)} />{/if}
      </div>
      {#if two}
        <Beside {trace} {here} {playing} {slow} {rate} onclose={() => (two = false)} />
      {/if}
      <div class={['grid content-start gap-2 text-sm', two ? 'md:col-span-2' : '']}>
        {#if problem}<p role="alert"><strong>{problem}</strong></p>{/if}
        {#if alignment && here !== null}
          <p class="text-lg" data-film-place>
            <strong>{corner ? cornerWord(corner) : tell('filmPanel.from_the_line', { here: metres(here) })}</strong>
            {speedText(speed)}, {lapTime(Math.max(0, now ?? 0))}
          </p>
          <PedalsNow {trace} {here} />
          {#if next}<p data-film-next>{tell('filmPanel.next', { next })}</p>{/if}
          <p>
            {tell('filmPanel.one_frame_is_here_at', {
              rate: metres(frameMetres(speed, rate), 2),
              rate2: plain(rate, rate % 1 ? 2 : 0),
              isMarks: marks.length > 1,
            })}
          </p>
        {:else if alignment}
          <p>{tell('filmPanel.this_is_outside_of_the')}</p>
        {:else}
          <p>{tell('filmPanel.line_it_up_go_to')}</p>
        {/if}
        {#if wrong}<p role="alert"><strong>{wrong}</strong></p>{/if}
        <div class="flex flex-wrap gap-1">
          <button class="btn btn-sm" onclick={() => frame(-1)} aria-label={tell('filmPanel.one_frame_back')}>◂</button>
          {#if playing}
            <button class="btn btn-sm" onclick={() => video?.pause()}>{tell('filmPanel.stop')}</button>
          {:else}
            <button class="btn btn-sm btn-primary" onclick={play}>{tell('filmPanel.play')}</button>
          {/if}
          <button class="btn btn-sm" onclick={() => frame(1)} aria-label={tell('filmPanel.one_frame_on')}>▸</button>
          <button
            class="btn btn-sm"
            onclick={() => frame(Math.round(rate / 2))}
            aria-label={tell('filmPanel.half_a_second_on')}>½ s ▸</button
          >
          {#if alignment}<button class="btn btn-sm" onclick={nextCorner}>{tell('filmPanel.next_corner')}</button>{/if}
          {#each [0.25, 0.5, 1] as s (s)}
            <button
              class={['btn btn-sm', slow === s ? 'bg-base-300 border-current' : '']}
              aria-pressed={slow === s}
              onclick={() => {
                slow = s;
                if (video) video.playbackRate = s;
              }}>{s === 1 ? '1×' : s === 0.5 ? '½×' : '¼×'}</button
            >
          {/each}
        </div>
        <div class="flex flex-wrap gap-1">
          <button class="btn btn-sm" onclick={() => mark(0)}>{tell('filmPanel.this_is_the_line')}</button>
          <button class="btn btn-sm" onclick={() => mark(trace.lapTime)}>{tell('filmPanel.the_line_again')}</button>
          <button class="btn btn-sm" disabled={at === null} onclick={onCursor}
            >{tell('filmPanel.this_is_the_cursor')}</button
          >
          {#if marks.length}<button class="btn btn-sm" onclick={forget}>{tell('filmPanel.forget_the_marks')}</button
            >{/if}
          {#if alignment && !two}
            <button class="btn btn-sm" onclick={() => (two = true)}>{tell('filmPanel.another_film_beside_it')}</button>
          {/if}
          <button class="btn btn-sm" onclick={away}>{tell('filmPanel.put_the_film_away')}</button>
        </div>
        {#if !alignment || marks.length < 2}
          <input
            type="range"
            class="range range-xs"
            aria-label={tell('filmPanel.place_in_the_film')}
            min="0"
            max={Number.isFinite(video?.duration) ? video?.duration : Math.max(60, shown)}
            step={1 / rate}
            value={shown}
            oninput={(e) => seek(e.currentTarget.valueAsNumber)}
          />
        {/if}
        {#if alignment}<StillsPanel {stills} {here} {corners} bind:keep {picture} />{/if}
        <p class="text-xs">{tell('filmPanel.and_go_a_frame_back', { name: file?.name })}</p>
      </div>
    </div>
  {/if}
</section>

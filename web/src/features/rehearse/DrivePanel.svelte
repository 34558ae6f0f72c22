<script lang="ts">
  import { onDestroy } from 'svelte';
  import type { ClockView, Performed, ReferenceView, RehearsalView, RoadView } from '../../api/api';
  import { newId } from '../../kit/id';
  import { metres, plain, signed, speedText } from '../../words/units';
  import { LANDMARKS } from '../../road/things';
  import { cornerWord } from '../../words/words';
  import { keepLag, keptLag, lagOf, placeAt, slid, type Answer, type Control, type Press } from './rehearse';
  import { click, Tone } from './tone';
  import { tell } from '../../words/tell';
  import { follow } from '../../kit/drag';

  /** The lap at true speed, driven by heart: the road runs on the plan whatever is pressed. */
  interface Props {
    clock: ClockView;
    road: RoadView;
    reference: ReferenceView;
    /** The latest laps, as the server tells them. */
    drives: Performed[];
    /** What comes at another time when the road is fast. */
    faster: RehearsalView['faster'];
    waiting: number;
    ondriven: (answer: Answer) => void;
  }
  let { clock, road, reference, drives, faster, waiting, ondriven }: Props = $props();

  type Layer = 'brakes' | 'hands' | 'throttle' | 'gears' | 'all';
  const LAYERS: Record<Layer, Control[]> = {
    brakes: ['BRAKE'],
    hands: ['HANDS'],
    throttle: ['THROTTLE'],
    gears: ['GEAR'],
    all: ['BRAKE', 'HANDS', 'THROTTLE', 'GEAR'],
  };
  const KEYS: Record<string, Control> = {
    b: 'BRAKE',
    n: 'BRAKE',
    ' ': 'BRAKE',
    ArrowDown: 'BRAKE',
    h: 'HANDS',
    ArrowLeft: 'HANDS',
    ArrowRight: 'HANDS',
    t: 'THROTTLE',
    ArrowUp: 'THROTTLE',
    g: 'GEAR',
  };
  const NAMES: Record<Control, string> = {
    BRAKE: tell('drivePanel.brake'),
    HANDS: tell('drivePanel.turn'),
    THROTTLE: tell('drivePanel.throttle'),
    GEAR: tell('drivePanel.shift'),
  };
  let layer = $state<Layer>('brakes');
  let rate = $state(0.5);
  let dark = $state(false);
  let from = $state('');
  let sound = $state(true);
  let running = $state(false);
  let measuring = $state(false);
  let late = $state<number[]>([]);
  let lagNote = $state('');
  let lag = $state(keptLag(false));
  let flash = $state<Control | ''>('');
  let shown = $state(false);
  let canvas: HTMLCanvasElement | undefined = $state();
  let width = $state(700);
  const HEIGHT = 300;
  /** The brake has two keys; any other one says nothing of how hard. */
  const HARD: Record<string, boolean> = { b: true, n: false };
  // Before the first action of the lap or corner one has time to find oneself.
  const LEAD = 4;
  /** Passes by eye, and by ear. */
  const PASSES = [20, 12] as const;
  const PASS = 1.6;

  let presses: Press[] = [];
  let began = 0;
  let away = 0;
  let start = 0;
  let end = 0;
  let frame = 0;
  let tone: Tone | null = null;
  let audio: AudioContext | null = null;
  let clicks: GainNode | null = null;
  let drawn = 0;
  /** Work of each frame, ms; read by the tests. */
  const work: number[] = [];
  const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
  // With reduced motion the road moves in steps.
  const STEP = 0.5;

  const wanted = $derived(LAYERS[layer]);
  const passes = $derived(PASSES[dark ? 1 : 0]);
  const corner = $derived(reference.corners.find((c) => c.id === from) ?? null);
  const result = $derived(drives[0] ?? null);

  /** Road seconds at a moment of the page's own clock. */
  const roadTime = (stamp: number) => start + ((stamp - began) / 1000) * rate;

  function go() {
    presses = [];
    shown = false;
    lag = keptLag(dark);
    const due = clock.due.filter((d) => !corner || d.corner === corner.id);
    const first = due[0]?.at ?? 0;
    start = corner ? first - LEAD : -LEAD;
    end = corner ? (due[due.length - 1]?.at ?? first) + 2 : clock.lapTime + 1;
    if (end < start) end += clock.lapTime;
    begin();
  }
  function measure() {
    if (dark && !('AudioContext' in window)) {
      lagNote = tell('drivePanel.this_browser_makes_no_sound');
      return;
    }
    measuring = true;
    late = [];
    lagNote = '';
    start = 0;
    end = Infinity;
    begin();
    if (dark) void beats();
  }
  /** With closed eyes the passes are heard: a click at each, set on the sound's own clock. */
  async function beats() {
    const by = (audio ??= new AudioContext());
    // Until the sound runs its clock stands still: what is late then is not the driver.
    await by.resume();
    if (!measuring) return;
    clicks = by.createGain();
    clicks.connect(by.destination);
    const from = by.currentTime + 0.1;
    began = performance.now() + 100;
    for (let pass = 1; pass <= passes + 4; pass++) click(by, from + pass * PASS, clicks);
  }
  function begin() {
    running = true;
    if (sound && 'AudioContext' in window) {
      audio ??= new AudioContext();
      void audio.resume();
      tone ??= new Tone(audio, clock.cylinders, clock.strokes);
      tone.loud(!measuring);
    }
    began = performance.now();
    frame = requestAnimationFrame(draw);
  }
  function stop(done: boolean) {
    running = false;
    cancelAnimationFrame(frame);
    tone?.loud(false);
    // What is still to come is not heard any more.
    clicks?.disconnect();
    clicks = null;
    if (measuring) {
      measuring = false;
      return;
    }
    if (!done || presses.length === 0) return;
    // What was still to come when one stopped is not missed.
    const until = Math.min(end, roadTime(performance.now()));
    shown = true;
    ondriven({
      id: newId(),
      at: new Date().toISOString(),
      answered: {
        fact: '',
        right: 0,
        precision: 0,
        rate,
        lag,
        dark,
        start,
        end: until,
        keys: wanted,
        presses: presses.map((p) => ({ ...p, at: Math.round(p.at * 1e5) / 1e5 })),
        stations: Object.fromEntries(
          clock.due.filter((d) => wanted.includes(d.key)).map((d) => [`${d.corner}/${d.action}`, d.station]),
        ),
      },
    });
  }
  /** Seconds by the wall since the line, so that the server's road time is this one's. */
  const wall = (stamp: number) => start / rate + (stamp - began) / 1000;

  function press(control: Control, stamp: number, hard?: boolean): Press | undefined {
    if (!running) return;
    if (measuring) {
      const t = (stamp - began) / 1000;
      const pass = Math.round(t / PASS);
      if (pass >= 1 && late.length < passes) late = [...late, t - pass * PASS];
      if (late.length >= passes) {
        const found = lagOf(late);
        if (found) {
          lag = found.seconds;
          keepLag(dark, lag);
          lagNote = tell('drivePanel.ms_taken_off_from_now', { seconds: plain(found.seconds * 1000) });
        } else lagNote = tell('drivePanel.too_unsteady_or_too_long');
        stop(false);
      }
      return;
    }
    if (!wanted.includes(control)) return;
    const made: Press = { key: control, at: wall(stamp), ...(hard === undefined ? {} : { hard }) };
    presses.push(made);
    flash = control;
    setTimeout(() => (flash = ''), 340);
    return made;
  }
  /** A thumb presses, and says how much by sliding up before it lets go. */
  let slide = $state<{ key: Control; amount: number } | null>(null);
  function down(control: Control, e: PointerEvent) {
    const made = press(control, e.timeStamp);
    if (!made || (control !== 'BRAKE' && control !== 'THROTTLE')) return;
    follow(e, {
      onmove: (thumb) => {
        const amount = slid(e.clientY - thumb.clientY);
        if (amount === undefined) delete made.amount;
        else made.amount = amount;
        slide = amount === undefined ? null : { key: made.key, amount };
      },
      onend: () => (slide = null),
    });
  }
  function keys(e: KeyboardEvent) {
    if (!running || e.repeat || e.ctrlKey || e.metaKey || e.altKey) return;
    if (e.key === 'Escape') return stop(false);
    const control = KEYS[e.key] ?? (wanted.length === 1 && e.key === 'Enter' ? wanted[0] : undefined);
    if (!control) return;
    e.preventDefault();
    press(wanted.length === 1 ? (wanted[0] ?? control) : control, e.timeStamp, HARD[e.key]);
  }
  function hidden() {
    if (!running) return;
    if (document.hidden && measuring && dark) {
      // The clicks go on while the page's own time does not.
      lagNote = tell('drivePanel.interrupted_measure_it_again');
      stop(false);
      return;
    }
    if (document.hidden) away = performance.now();
    else if (away) {
      began += performance.now() - away;
      away = 0;
    }
  }

  function draw(now: number) {
    if (!running) return;
    frame = requestAnimationFrame(draw);
    if (document.hidden) return;
    const t0 = performance.now();
    if (measuring) {
      if (!dark) pass(now);
    } else {
      let t = roadTime(now);
      if (t >= end) {
        stop(true);
        return;
      }
      if (still) t = Math.floor(t / STEP) * STEP;
      const here = placeAt(clock, t);
      tone?.set(here.revs, here.speed);
      if (canvas) canvas.dataset.revs = String(Math.round(here.revs));
      if (!still || t !== drawn) scene(here);
      drawn = t;
    }
    work.push(performance.now() - t0);
    if (work.length > 2000) work.shift();
    if (canvas) {
      const sorted = work.slice(-120).sort((a, b) => a - b);
      canvas.dataset.work = String(sorted.at(-1) ?? 0);
      canvas.dataset.usual = String(sorted[Math.floor(0.95 * (sorted.length - 1))] ?? 0);
    }
  }
  const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name) || '#888';
  let colours: Record<string, string> = {};
  function paints() {
    if (!colours.ink)
      colours = { ink: colour('--ink'), soft: colour('--ink-soft'), road: colour('--road'), turn: colour('--turn') };
    return colours;
  }
  function ground(): CanvasRenderingContext2D | null {
    const c = canvas?.getContext('2d') ?? null;
    if (!c || !canvas) return null;
    const ratio = window.devicePixelRatio || 1;
    if (canvas.width !== Math.round(width * ratio)) {
      canvas.width = Math.round(width * ratio);
      canvas.height = Math.round(HEIGHT * ratio);
    }
    c.setTransform(ratio, 0, 0, ratio, 0, 0);
    c.clearRect(0, 0, width, HEIGHT);
    return c;
  }
  /** The mark passes the line once in every pass: no press of a lap teaches it. */
  function pass(now: number) {
    const c = ground();
    if (!c) return;
    const p = paints();
    const t = (((now - began) / 1000) % PASS) / PASS;
    c.strokeStyle = p.ink ?? '';
    c.lineWidth = 3;
    c.beginPath();
    c.moveTo(width * 0.5, 40);
    c.lineTo(width * 0.5, HEIGHT - 40);
    c.stroke();
    c.strokeStyle = p.turn ?? '';
    const x = width * (0.5 + (t < 0.5 ? t : t - 1) * -0.9);
    c.beginPath();
    c.moveTo(x, 70);
    c.lineTo(x, HEIGHT - 70);
    c.stroke();
  }
  /** The road from above, as it comes: one's own place stands still, the way ahead goes to the right. */
  function scene(here: { station: number; speed: number; gear: number }) {
    const c = ground();
    if (!c) return;
    const p = paints();
    c.fillStyle = p.ink ?? '';
    c.font = '600 15px sans-serif';
    c.fillText(`${speedText(here.speed)}   ${here.gear}.`, 10, 22);
    if (dark) return;
    const scale = Math.min(width / 230, HEIGHT / 110);
    const at = (s: number) => {
      const n = road.x.length;
      const i = (((s % road.length) + road.length) % road.length) / road.step;
      const a = Math.floor(i) % n;
      const b = (a + 1) % n;
      const f = i - Math.floor(i);
      return [(road.x[a] ?? 0) * (1 - f) + (road.x[b] ?? 0) * f, (road.y[a] ?? 0) * (1 - f) + (road.y[b] ?? 0) * f];
    };
    const [x0, y0] = at(here.station) as [number, number];
    const [x1, y1] = at(here.station + 6) as [number, number];
    const heading = Math.atan2(y1 - y0, x1 - x0);
    const cos = Math.cos(heading);
    const sin = Math.sin(heading);
    const to = ([x, y]: number[]) => {
      const dx = (x ?? 0) - x0;
      const dy = (y ?? 0) - y0;
      return [width * 0.22 + (dx * cos + dy * sin) * scale, HEIGHT / 2 - (-dx * sin + dy * cos) * scale] as const;
    };
    c.strokeStyle = p.road ?? '';
    c.lineWidth = 11 * scale;
    c.lineJoin = 'round';
    c.beginPath();
    for (let s = -60; s <= 400; s += 5) {
      const [px, py] = to(at(here.station + s));
      if (s === -60) c.moveTo(px, py);
      else c.lineTo(px, py);
    }
    c.stroke();
    c.fillStyle = p.soft ?? '';
    c.font = '12px sans-serif';
    for (const l of reference.things.landmarks) {
      const ahead = (((l.station - here.station) % road.length) + road.length) % road.length;
      if (ahead > 400 && ahead < road.length - 60) continue;
      const [ax, ay] = at(l.station) as [number, number];
      const [bx, by] = at(l.station + 4) as [number, number];
      const h = Math.atan2(by - ay, bx - ax) + (l.left ? Math.PI / 2 : -Math.PI / 2);
      const [px, py] = to([ax + Math.cos(h) * (8 + Math.max(0, l.out)), ay + Math.sin(h) * (8 + Math.max(0, l.out))]);
      c.fillRect(px - 2, py - 6, 4, 12);
      c.fillText(l.label || LANDMARKS[l.kind].word, px + 5, py - 4);
    }
    c.fillStyle = p.turn ?? '';
    const [mx, my] = to([x0, y0]);
    c.beginPath();
    c.moveTo(mx + 12, my);
    c.lineTo(mx - 8, my - 7);
    c.lineTo(mx - 8, my + 7);
    c.fill();
  }
  // Standing still one sees where it begins.
  $effect(() => {
    if (running || !width) return;
    const due = clock.due.find((d) => !corner || d.corner === corner.id);
    scene(placeAt(clock, corner ? (due?.at ?? 0) - LEAD : -LEAD));
  });
  onDestroy(() => {
    cancelAnimationFrame(frame);
    void audio?.close();
  });
  const called = (id: string) => {
    const c = reference.corners.find((o) => o.id === id);
    return c ? cornerWord(c) : id;
  };
  function told(p: Performed['performance']): string {
    const out: string[] = [];
    if (p.low != null && p.high != null)
      out.push(tell('drivePanel.to_s_in_95_of', { low: signed(p.low, 2), high: signed(p.high, 2) }));
    if (p.spread != null) out.push(tell('drivePanel.spread_s', { spread: plain(p.spread, 2) }));
    if (p.missed.length) out.push(tell('drivePanel.missed', { missed: p.missed.length }));
    if (p.extra.length) out.push(tell('drivePanel.too_many', { extra: p.extra.length }));
    return out.join(', ');
  }
  /** What would have become of it, as far as it was driven. */
  function became(m: Performed['performance']['met'][number]): string {
    const h = result?.happened.find((o) => o.corner === m.due.corner && o.action === m.due.action);
    if (!h) return '';
    const look = h.look ? `: ${h.look}` : '';
    if (h.seconds != null) return Math.abs(h.seconds) < 0.005 ? '' : `→ ${signed(h.seconds, 2)} s${look}`;
    return h.deep == null
      ? tell('drivePanel.not_made', { look })
      : tell('drivePanel.deep_by', { deep: metres(h.deep), look });
  }
  /** How much was pressed, where that was told. */
  function howMuch(m: Performed['performance']['met'][number]): string {
    if (m.otherKey) return tell('drivePanel.on_the_other_brake_key');
    if (m.more == null) return '';
    return m.enough
      ? tell('drivePanel.as_much_as_planned')
      : tell('drivePanel.points', { more: signed(m.more * 100, 0) });
  }
  const KINDS_OF: Record<Control, string> = {
    BRAKE: tell('drivePanel.brake_2'),
    HANDS: tell('drivePanel.turn_in'),
    THROTTLE: tell('drivePanel.throttle_2'),
    GEAR: tell('drivePanel.gear'),
  };
</script>

<svelte:window onkeydown={keys} />
<svelte:document onvisibilitychange={hidden} />

<section class="grid grid-cols-[minmax(0,1fr)] gap-2">
  <div class="flex flex-wrap items-center gap-2" role="group" aria-label={tell('drivePanel.how_it_is_driven')}>
    {#each Object.keys(LAYERS) as l (l)}
      <button
        class={['btn btn-sm min-h-9', layer === l ? 'btn-primary' : '']}
        aria-pressed={layer === l}
        disabled={running}
        onclick={() => (layer = l as Layer)}>{l}</button
      >
    {/each}
    <span class="w-2"></span>
    {#each [0.5, 0.75, 1] as r (r)}
      <button
        class={['btn btn-sm min-h-9', rate === r ? 'btn-primary' : '']}
        aria-pressed={rate === r}
        disabled={running}
        onclick={() => (rate = r)}>{tell('drivePanel.true_speed_half_three_quarters', { r, isR: r === 0.5 })}</button
      >
    {/each}
    <label class="flex items-center gap-1"
      ><input type="checkbox" class="checkbox checkbox-sm" bind:checked={dark} disabled={running} />{tell(
        'drivePanel.closed_eyes',
      )}</label
    >
    <label class="flex items-center gap-1"
      ><input type="checkbox" class="checkbox checkbox-sm" bind:checked={sound} disabled={running} />{tell(
        'drivePanel.engine',
      )}</label
    >
    <select
      class="select select-sm w-auto"
      aria-label={tell('drivePanel.what_is_driven')}
      bind:value={from}
      disabled={running}
    >
      <option value="">{tell('drivePanel.whole_lap')}</option>
      {#each reference.corners as c (c.id)}<option value={c.id}>{cornerWord(c)}</option>{/each}
    </select>
  </div>
  <div bind:clientWidth={width} class="bg-base-100 border-base-300 rounded border">
    <canvas
      bind:this={canvas}
      style="width: 100%; height: {HEIGHT}px"
      data-drive
      aria-label={tell('drivePanel.the_road_as_it_comes')}
    ></canvas>
  </div>
  {#if running}
    <div class="flex gap-3">
      {#each measuring ? (['BRAKE'] as Control[]) : wanted as k (k)}
        <button
          class={['btn min-h-20 flex-1 text-xl', flash === k ? 'btn-primary' : '']}
          style="touch-action: none"
          data-press={k}
          onpointerdown={(e) => down(k, e)}
          >{measuring
            ? tell('drivePanel.now')
            : slide?.key === k
              ? `${NAMES[k]} ${plain(slide.amount * 100)} %`
              : NAMES[k]}</button
        >
      {/each}
      <button class="btn min-h-20 text-lg" onclick={() => stop(!measuring)}>{tell('drivePanel.stop')}</button>
    </div>
    <p class="text-sm" role="status">
      {tell('drivePanel.press_when_you_hear_the', {
        hasMeasuring: !!measuring,
        hasDark: !!dark,
        late: late.length,
        passes,
      })}
    </p>
  {:else}
    <div class="flex flex-wrap items-center gap-3">
      <button class="btn btn-primary min-h-14 text-lg" onclick={go}
        >{tell('drivePanel.drive', { id: corner ? called(corner.id) : tell('drivePanel.the_lap') })}</button
      >
      <button class="btn min-h-14" onclick={measure}>{tell('drivePanel.measure_the_lag')}</button>
      <span class="text-sm"
        >{lagNote ||
          (lag
            ? tell('drivePanel.ms_of_lag_are_taken', { lag: plain(lag * 1000) })
            : tell('drivePanel.the_lag_of_this_device'))}</span
      >
    </div>
  {/if}
  {#if shown && waiting}
    <p role="status">{tell('drivePanel.kept_on_this_device_it')}</p>
  {/if}
  {#if faster.length}
    <p data-faster>
      <strong>{tell('drivePanel.when_the_road_is_fast')}</strong>
      {faster
        .map((f) =>
          tell('drivePanel.s_later_sooner_than_in', {
            corner: called(f.corner),
            key: KINDS_OF[f.key],
            slow: plain(Math.abs(f.fast - f.slow), 2),
            isFast: f.fast > f.slow,
          }),
        )
        .join('; ')}.
    </p>
  {/if}
  {#if result}
    {@const p = result.performance}
    <div class="grid gap-1" data-performance>
      <p class="text-lg">
        <strong
          >{p.bias == null
            ? tell('drivePanel.met', { met: p.met.length })
            : tell('drivePanel.s_early_late_on_the', {
                bias: plain(Math.abs(p.bias), 2),
                lessBias: p.bias < 0,
              })}</strong
        >
        {told(p)}
        {#if result.rate < 1}<span class="text-sm"
            >{tell('drivePanel.at_of_the_speed', { rate: plain(result.rate * 100) })}</span
          >{/if}
      </p>
      <ul class="flex flex-wrap gap-2 text-sm">
        {#each p.met as m, i (i)}
          {@const far = Math.min(1, Math.abs(m.metres) / 20)}
          <li
            class="border-base-300 rounded border px-2 py-0.5"
            style="border-left: {3 + 9 * far}px solid var(--brake)"
          >
            <strong>{called(m.due.corner)}</strong>
            {tell('drivePanel.on_it_early_late', {
              key: KINDS_OF[m.due.key],
              isAbs: Math.abs(m.metres) < 0.5,
              abs: metres(Math.abs(m.metres)),
              lessM: m.metres < 0,
              howMuch: howMuch(m),
              became: became(m),
            })}
          </li>
        {/each}
        {#each p.missed.slice(0, 30) as d, i (i)}
          <li class="border-base-300 rounded border border-dashed px-2 py-0.5">
            <strong>{called(d.corner)}</strong>
            {tell('drivePanel.missed_2', { key: KINDS_OF[d.key] })}
          </li>
        {/each}
      </ul>
    </div>
  {/if}
</section>

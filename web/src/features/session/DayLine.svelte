<script lang="ts">
  import type { SessionLine } from '../../api/api';
  import { ERRANDS } from '../../words/errands';
  import { clock, hours } from '../../words/clock';
  import { KINDS, span } from './sessions';
  import { few } from '../../words/few';
  import { tell } from '../../words/tell';
  import { follow } from '../../kit/drag';

  /** A day at the circuit as a line of hours: sessions are blocks on it, what is due are ticks before. */
  interface Props {
    title: string;
    /** Like 2026-06-06. */
    date: string;
    zone: string;
    sessions: SessionLine[];
    now: number;
    onadd: (wall: string) => void;
    onmove: (s: SessionLine, wall: string) => void;
    onopen: (s: SessionLine) => void;
  }
  let { title, date, zone, sessions, now, onadd, onmove, onopen }: Props = $props();

  const HEIGHT = 92;
  const LINE = 58;
  const STEP_MIN = 5;
  let width = $state(900);
  let pulled = $state<{ id: string; by: number } | null>(null);
  let moved = false;

  const range = $derived(span(sessions, zone));
  const x = $derived((h: number) => 8 + ((h - range[0]) / (range[1] - range[0])) * (width - 16));
  const ticks = $derived(Array.from({ length: range[1] - range[0] + 1 }, (_, i) => range[0] + i));
  const lasts = (s: SessionLine) => (new Date(s.ends).getTime() - new Date(s.begins).getTime()) / 3_600_000;
  const at = (s: SessionLine) => hours(s.begins, zone) + (pulled?.id === s.id ? pulled.by : 0);
  const isToday = $derived(
    new Intl.DateTimeFormat('en-CA', { timeZone: zone, dateStyle: 'short' }).format(now) === date,
  );
  const nowAt = $derived(hours(new Date(now).toISOString(), zone));

  const snapped = (h: number) => Math.round((h * 60) / STEP_MIN) * STEP_MIN;
  function wall(minutes: number): string {
    const m = Math.max(0, Math.min(24 * 60 - STEP_MIN, minutes));
    return `${date}T${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}:00`;
  }
  function press(e: MouseEvent & { currentTarget: SVGSVGElement }) {
    const h = range[0] + ((e.offsetX - 8) / (width - 16)) * (range[1] - range[0]);
    onadd(wall(snapped(h)));
  }
  function drag(e: PointerEvent, s: SessionLine) {
    if (s.made) return;
    const scale = (range[1] - range[0]) / (width - 16);
    moved = false;
    follow(e, {
      from: STEP_MIN / 120 / scale,
      onmove: (m) => {
        moved = true;
        const by = (m.clientX - e.clientX) * scale;
        pulled = { id: s.id, by: (snapped(hours(s.begins, zone) + by) - snapped(hours(s.begins, zone))) / 60 };
      },
      onend: () => {
        const by = pulled?.id === s.id ? pulled.by : 0;
        pulled = null;
        if (by) onmove(s, wall(snapped(hours(s.begins, zone) + by)));
      },
    });
  }
  function key(e: KeyboardEvent, s: SessionLine) {
    if (e.key === 'Enter' || e.key === ' ') onopen(s);
    const by = e.key === 'ArrowRight' ? STEP_MIN : e.key === 'ArrowLeft' ? -STEP_MIN : 0;
    if (by && !s.made) {
      onmove(s, wall(snapped(hours(s.begins, zone)) + by));
    }
    if (by || e.key === 'Enter' || e.key === ' ') e.preventDefault();
  }
</script>

<div class="relative" bind:clientWidth={width}>
  <p class="absolute top-0 left-2 text-sm font-semibold">{title}</p>
  <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
  <svg
    {width}
    height={HEIGHT}
    role="group"
    aria-label={tell('dayLine.hours_at_the_circuit_press', { title })}
    onclick={press}
  >
    <line x1={x(range[0])} x2={x(range[1])} y1={LINE} y2={LINE} stroke="var(--road-edge)" stroke-width="2" />
    {#each ticks as h (h)}
      <line x1={x(h)} x2={x(h)} y1={LINE} y2={LINE + 5} stroke="var(--road-edge)" />
      <text x={x(h)} y={LINE + 19} text-anchor="middle" style="fill: var(--ink-soft)">{h % 24}</text>
    {/each}
    {#if isToday && nowAt >= range[0] && nowAt <= range[1]}
      <line x1={x(nowAt)} x2={x(nowAt)} y1={16} y2={LINE + 8} stroke="var(--turn)" stroke-width="1.5" />
      <text x={x(nowAt)} y={LINE + 31} text-anchor="middle" style="fill: var(--turn)">{tell('dayLine.now')}</text>
    {/if}
    {#each sessions as s (s.id)}
      {@const off = s.session.timing.state !== 'ON'}
      {#if !s.made && pulled?.id !== s.id}
        {#each s.due as d (d.errand)}
          {@const h = at(s) + (new Date(d.until).getTime() - new Date(s.begins).getTime()) / 3_600_000}
          {#if h >= range[0] && h <= range[1]}
            <circle
              cx={x(h)}
              cy={LINE}
              r="3.5"
              fill={d.done ? 'var(--road-edge)' : 'var(--color-base-100)'}
              stroke="var(--road-edge)"
              stroke-width="1.5"
              ><title>{tell('dayLine.by', { what: ERRANDS[d.errand].what, zone: clock(d.until, zone) })}</title></circle
            >
          {/if}
        {/each}
      {/if}
      <g
        role="button"
        tabindex="0"
        aria-label="{s.session.name}, {KINDS[s.session.kind]}, {clock(s.begins, zone)}{off
          ? ', ' + few(s.session.timing.state)
          : ''}"
        onpointerdown={(e) => drag(e, s)}
        onclick={(e) => {
          e.stopPropagation();
          if (!moved) onopen(s);
        }}
        onkeydown={(e) => key(e, s)}
        style="cursor: {s.made ? 'pointer' : 'ew-resize'}; touch-action: none"
      >
        <rect
          x={x(at(s))}
          y={LINE - 26}
          width={Math.max(10, x(at(s) + lasts(s)) - x(at(s)))}
          height="26"
          rx="2"
          class="focus-ring"
          fill={s.made
            ? 'var(--road)'
            : s.session.day.day.surface?.state === 'DRY'
              ? 'var(--throttle-fill)'
              : 'var(--road-quiet)'}
          stroke="var(--ink)"
          stroke-width={s.made ? 0.75 : 1.5}
          stroke-dasharray={off ? '4 3' : undefined}
          opacity={off ? 0.6 : 1}
        />
        {#if s.session.day.day.surface && s.session.day.day.surface.state !== 'DRY'}
          {#each [0, 1, 2].filter((k) => k * 6 + 10 <= Math.max(10, x(at(s) + lasts(s)) - x(at(s)))) as k (k)}
            <path
              d="M {x(at(s)) + 4 + k * 6} {LINE - 5} l 3 -6"
              stroke="var(--brake)"
              stroke-width="1.5"
              fill="none"
              aria-hidden="true"
            />
          {/each}
        {/if}
        <text x={x(at(s)) + 2} y={LINE - 31} style="font-weight: 600"
          >{s.made
            ? s.session.name
            : `${pulled?.id === s.id ? wall(snapped(at(s))).slice(11, 16) : clock(s.begins, zone)} ${s.session.name}`}</text
        >
      </g>
    {/each}
  </svg>
</div>

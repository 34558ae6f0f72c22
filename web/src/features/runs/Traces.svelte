<script lang="ts">
  import uPlot from 'uplot';
  import 'uplot/dist/uPlot.min.css';
  import type { Corner, TraceView } from '../../api/api';
  import { POINTS } from '../../road/points';
  import { behind, onStations } from '../../road/runs';
  import { G, fromLength, inLength, inSpeed, lengthUnit, speedUnit } from '../../words/units';
  import { tell } from '../../words/tell';

  /** Two laps on the distance, lane under lane, with one cursor. */
  interface Props {
    first: TraceView;
    second?: TraceView | null;
    corners: Corner[];
    /** Stations shown. */
    window: [number, number];
    /** Station under the cursor. */
    at?: number | null;
    onat?: (station: number | null) => void;
    height: number;
  }
  let { first, second = null, corners, window: shown, at = null, onat, height }: Props = $props();

  type Channel = keyof TraceView['channels'];
  interface Lane {
    name: string;
    unit: string;
    share: number;
    of: (t: TraceView) => number[] | undefined;
    scale: (v: number) => number;
    down?: (t: TraceView) => number[] | undefined;
    range?: [number, number];
    steps?: boolean;
    /** Whether what happened is written in it. */
    events?: boolean;
  }
  const channel = (name: Channel) => (t: TraceView) => t.channels[name];
  const degrees = (v: number) => (v * 180) / Math.PI;
  const LANES: Lane[] = $derived([
    { name: tell('traces.speed'), unit: speedUnit(), share: 3.4, of: (t) => t.speed, scale: inSpeed, events: true },
    {
      name: tell('traces.throttle_up_brake_down'),
      unit: '%',
      share: 2.2,
      of: channel('THROTTLE'),
      down: channel('BRAKE'),
      scale: (v) => v * 100,
      range: [-105, 105],
    },
    { name: tell('traces.steering'), unit: '°', share: 1.3, of: channel('STEERING'), scale: degrees },
    { name: tell('traces.gear'), unit: '', share: 0.9, of: channel('GEAR'), scale: (v) => v, steps: true },
    { name: tell('traces.revs'), unit: '/min', share: 1, of: channel('REVS'), scale: (v) => v },
    { name: tell('traces.along'), unit: 'g', share: 1, of: channel('ALONG'), scale: (v) => v / G },
    { name: tell('traces.across'), unit: 'g', share: 1, of: channel('ACROSS'), scale: (v) => v / G },
  ]);
  const lanes = $derived(LANES.filter((l) => l.of(first) ?? (second && l.of(second))));
  let width = $state(800);
  let host = $state<HTMLDivElement>();
  let charts: uPlot[] = [];
  let setting = false;

  const css = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

  function column(t: TraceView | null, values: number[] | undefined, lane: Lane): (number | null)[] {
    if (!t || !values) return [];
    return onStations(values, t.step, first.step, first.speed.length).map(lane.scale);
  }

  /** Corners as quiet bands, so that the eye finds the place without reading the axis. */
  function bands(u: uPlot) {
    const { ctx } = u;
    ctx.save();
    ctx.fillStyle = css('--road-quiet');
    ctx.globalAlpha = 0.35;
    for (const c of corners) {
      const a = u.valToPos(inLength(c.entry), 'x', true);
      const b = u.valToPos(inLength(c.exit > c.entry ? c.exit : c.entry + 20), 'x', true);
      const left = Math.max(a, u.bbox.left);
      const right = Math.min(b, u.bbox.left + u.bbox.width);
      if (right > left) ctx.fillRect(left, u.bbox.top, right - left, u.bbox.height);
    }
    ctx.restore();
  }

  const MARKED = [
    ['brake', 'BRAKE'],
    ['turnIn', 'TURN_IN'],
    ['release', 'RELEASE'],
    ['apex', 'APEX'],
    ['firstThrottle', 'FIRST_THROTTLE'],
    ['fullThrottle', 'FULL_THROTTLE'],
  ] as const;
  /** What happened in each corner, as small flags at the foot of the speed. */
  function events(u: uPlot) {
    const { ctx } = u;
    const d = devicePixelRatio;
    const close = shown[1] - shown[0] < 900;
    ctx.save();
    ctx.font = `${10 * d}px "Sofia Sans Semi Condensed Variable"`;
    ctx.textAlign = 'left';
    // Where the last name of each row ends; a name that fits in none is left to its colour.
    const ends = [-Infinity, -Infinity];
    const marks = first.events
      .flatMap((e) => MARKED.map(([key, kind]) => ({ s: e[key], kind })))
      .filter(
        (m): m is { s: number; kind: (typeof MARKED)[number][1] } => m.s != null && m.s >= shown[0] && m.s <= shown[1],
      )
      .sort((a, b) => a.s - b.s);
    for (const { s, kind } of marks) {
      const x = u.valToPos(inLength(s), 'x', true);
      const y = u.bbox.top + u.bbox.height;
      const style = POINTS[kind];
      ctx.fillStyle = css(style.colour.slice(4, -1));
      ctx.strokeStyle = ctx.fillStyle;
      ctx.beginPath();
      ctx.moveTo(x, y);
      ctx.lineTo(x, y - 12 * d);
      ctx.lineTo(x + 6 * d, y - 9 * d);
      ctx.lineTo(x, y - 6 * d);
      ctx.stroke();
      ctx.fill();
      const row = ends.findIndex((end) => x > end);
      if (close && row >= 0) {
        write(ctx, style.word, x + 3 * d, y - (15 + 11 * row) * d);
        ends[row] = x + ctx.measureText(style.word).width + 8 * d;
      }
    }
    ctx.restore();
  }

  /** Words that lines may cross: on a ground of their own. */
  function write(ctx: CanvasRenderingContext2D, text: string, x: number, y: number) {
    ctx.save();
    ctx.lineJoin = 'round';
    ctx.lineWidth = 4 * devicePixelRatio;
    ctx.strokeStyle = css('--color-base-200');
    ctx.strokeText(text, x, y);
    ctx.restore();
    ctx.fillText(text, x, y);
  }

  function make() {
    charts.forEach((c) => c.destroy());
    charts = [];
    if (!host) return;
    const stations = first.speed.map((_, i) => inLength(i * first.step));
    const all: { lane: Lane | null; share: number }[] = [
      ...(second ? [{ lane: null, share: 1.4 }] : []),
      ...lanes.map((lane) => ({ lane, share: lane.share })),
    ];
    const total = all.reduce((sum, l) => sum + l.share, 0);
    const free = height - 26;
    const ink = css('--ink');
    const soft = css('--ink-soft');
    const other = css('--throttle');
    all.forEach(({ lane, share }, index) => {
      const lastOne = index === all.length - 1;
      const series: uPlot.Series[] = [{}];
      const data: (number | null)[][] = [stations];
      const line = (stroke: string, dash?: number[]): uPlot.Series => ({
        stroke,
        width: dash ? 1.3 : 1.8,
        points: { show: false },
        ...(dash ? { dash } : {}),
        ...(lane?.steps && uPlot.paths.stepped ? { paths: uPlot.paths.stepped({ align: 1 }) } : {}),
      });
      if (!lane && second) {
        series.push({ stroke: css('--turn'), width: 1.8, fill: css('--turn') + '22', points: { show: false } });
        data.push(behind(first, second));
      } else if (lane) {
        for (const [t, dash, colour] of [
          [first, undefined, ink],
          [second, [5, 4], other],
        ] as const) {
          if (!t) continue;
          const up = lane.of(t);
          if (up) {
            series.push(line(colour, dash ? [...dash] : undefined));
            data.push(column(t, up, lane));
          }
          const down = lane.down?.(t);
          if (down) {
            series.push(line(colour, dash ? [...dash] : undefined));
            data.push(column(t, down, lane).map((v) => (v === null ? null : -v)));
          }
        }
      }
      const unit = lane ? lane.unit : 's';
      const chart = new uPlot(
        {
          width,
          height: Math.round((free * share) / total) + (lastOne ? 26 : 0),
          padding: [3, 8, 0, 0],
          legend: { show: false },
          cursor: {
            sync: { key: 'lap' },
            drag: { x: false, y: false },
            points: { size: 6 },
            y: false,
          },
          scales: {
            x: { time: false, min: inLength(shown[0]), max: inLength(shown[1]) },
            y: lane?.range ? { range: lane.range } : {},
          },
          axes: [
            {
              show: lastOne,
              size: 26,
              stroke: soft,
              grid: { show: false },
              ticks: { stroke: soft, size: 4 },
              values: (_, v) => v.map((n) => `${n} ${lengthUnit()}`),
              font: '11px "Sofia Sans Semi Condensed Variable"',
            },
            {
              size: 44,
              stroke: soft,
              grid: { stroke: css('--road'), width: 1 },
              ticks: { show: false },
              space: 24,
              font: '11px "Sofia Sans Semi Condensed Variable"',
              values: (_, v) => v.map((n) => String(lane?.range ? Math.abs(n) : n)),
            },
          ],
          series,
          hooks: {
            drawClear: [bands],
            draw: [
              (u) => {
                u.ctx.save();
                u.ctx.font = `${11 * devicePixelRatio}px "Sofia Sans Semi Condensed Variable"`;
                u.ctx.fillStyle = ink;
                u.ctx.textAlign = 'left';
                u.ctx.textBaseline = 'alphabetic';
                const text = lane ? `${lane.name}${unit ? `, ${unit}` : ''}` : tell('traces.time_behind_s');
                write(u.ctx, text, u.bbox.left + 5 * devicePixelRatio, u.bbox.top + 11 * devicePixelRatio);
                u.ctx.restore();
                if (lane?.events) events(u);
              },
            ],
            setCursor: [
              (u) => {
                if (setting) return;
                const i = u.cursor.idx;
                onat?.(i === null || i === undefined || (u.cursor.left ?? -1) < 0 ? null : i * first.step);
              },
            ],
          },
        },
        data as uPlot.AlignedData,
        host!,
      );
      charts.push(chart);
    });
  }

  $effect(() => {
    void [first, second, lanes, width, height, corners];
    make();
    return () => {
      charts.forEach((c) => c.destroy());
      charts = [];
    };
  });
  $effect(() => {
    const [a, b] = shown;
    for (const c of charts) c.setScale('x', { min: inLength(a), max: inLength(b) });
  });
  // The cursor follows the strip and the replay.
  $effect(() => {
    const to = at;
    if (to === null) return;
    setting = true;
    for (const c of charts) {
      const left = c.valToPos(inLength(to), 'x');
      if (Math.abs((c.cursor.left ?? -10) - left) > 1) c.setCursor({ left, top: 0 }, false);
    }
    setting = false;
  });

  const value = $derived.by(() => {
    if (at === null) return null;
    const i = Math.max(0, Math.min(first.speed.length - 1, Math.round(at / first.step)));
    return i;
  });
  const said = $derived(
    value === null
      ? ''
      : `${Math.round(inLength(value * first.step))} ${lengthUnit()}: ${Math.round(inSpeed(first.speed[value] ?? 0))}` +
          (second
            ? tell('traces.against', {
                speed: Math.round(
                  inSpeed(onStations(second.speed, second.step, first.step, first.speed.length)[value] ?? 0),
                ),
              })
            : '') +
          ` ${speedUnit()}`,
  );
  function onkeydown(event: KeyboardEvent) {
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (!by) return;
    event.preventDefault();
    const step = fromLength(event.shiftKey ? 25 : 5);
    const middle = (shown[0] + shown[1]) / 2;
    onat?.(Math.max(shown[0], Math.min(shown[1], (at ?? middle) + by * step)));
  }
</script>

<div
  bind:clientWidth={width}
  class="w-full"
  role="slider"
  aria-label={tell('traces.cursor_on_the_traces_along')}
  aria-valuemin={Math.round(shown[0])}
  aria-valuemax={Math.round(shown[1])}
  aria-valuenow={Math.round(at ?? shown[0])}
  aria-valuetext={said || tell('traces.no_cursor')}
  tabindex="0"
  {onkeydown}
  data-traces
>
  <div bind:this={host}></div>
</div>

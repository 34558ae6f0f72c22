<script lang="ts">
  import type { LayoutView, RoadView, SunView, Things } from '../../api/api';
  import { edges, pathOf } from '../../road/strip';
  import { tell } from '../../words/tell';

  interface Props {
    road: RoadView;
    things: Things;
    corners: LayoutView['corners'];
    sun: SunView | null;
    middle: number;
    span: number;
    selected: string;
    height?: number;
    onmove: (station: number) => void;
    onadd?: (station: number, offset: number) => void;
  }
  let { road, things, corners, sun, middle, span, selected, height = 260, onmove, onadd }: Props = $props();

  let width = $state(400);
  let whole = $state(false);
  let svg: SVGSVGElement;

  const index = (s: number) => {
    const n = road.x.length;
    return ((Math.round(s / road.step) % n) + n) % n;
  };
  const window_ = $derived<[number, number]>(whole ? [0, road.length] : [middle - span / 2, middle + span / 2]);
  const both = $derived(edges(road, window_[0], window_[1]));
  const fit = $derived.by(() => {
    const all = [...both.left, ...both.right];
    const xs = all.map((p) => p[0]);
    const ys = all.map((p) => p[1]);
    const left = Math.min(...xs) - (whole ? 20 : 25);
    const right = Math.max(...xs) + (whole ? 20 : 25);
    const low = Math.min(...ys) - (whole ? 20 : 25);
    const high = Math.max(...ys) + (whole ? 20 : 25);
    const k = Math.min(width / (right - left), height / (high - low));
    const dx = (width - k * (right - left)) / 2;
    const dy = (height - k * (high - low)) / 2;
    return {
      k,
      to: ([x, y]: [number, number]): [number, number] => [dx + (x - left) * k, height - dy - (y - low) * k],
      from: (px: number, py: number): [number, number] => [left + (px - dx) / k, low + (height - dy - py) / k],
    };
  });
  function at(station: number, offset: number): [number, number] {
    const i = index(station);
    const h = road.heading[i] ?? 0;
    return [(road.x[i] ?? 0) - offset * Math.sin(h), (road.y[i] ?? 0) + offset * Math.cos(h)];
  }
  const offsetOf = (l: { station: number; left: boolean; out: number }) => {
    const i = index(l.station);
    return l.left ? (road.left[i] ?? 5) + l.out : -(road.right[i] ?? 5) - l.out;
  };
  const inside = (s: number) => {
    if (whole) return true;
    const half = road.length / 2;
    const d = ((((s - middle + half) % road.length) + road.length) % road.length) - half;
    return Math.abs(d) <= span / 2;
  };
  const shadows = $derived(
    (sun?.shadows ?? []).flatMap((s) => {
      const l = things.landmarks.find((k) => k.id === s.landmark);
      if (!l || !inside(l.station)) return [];
      const foot = at(l.station, offsetOf(l));
      const far = Math.hypot(s.east, s.north);
      // Half as wide as high for a tree, a hand for a board: enough to see which way it falls.
      const half = l.kind === 'TREE' ? l.height * 0.28 : l.kind === 'BRIDGE' ? 6 : 0.5;
      const ux = -s.north / Math.max(far, 0.1);
      const uy = s.east / Math.max(far, 0.1);
      const tip: [number, number] = [foot[0] + s.east, foot[1] + s.north];
      return [
        {
          id: l.id,
          d: pathOf(
            (
              [
                [foot[0] + ux * half, foot[1] + uy * half],
                [tip[0] + ux * half, tip[1] + uy * half],
                [tip[0] - ux * half, tip[1] - uy * half],
                [foot[0] - ux * half, foot[1] - uy * half],
              ] as [number, number][]
            ).map(fit.to),
            true,
          ),
        },
      ];
    }),
  );
  const DIAL = 34;
  const dial = $derived({ x: width - DIAL - 8, y: DIAL + 10 });
  const onDial = $derived((azimuth: number, elevation: number): [number, number] => {
    const r = DIAL * (1 - Math.max(0, elevation) / (Math.PI / 2));
    return [dial.x + r * Math.sin(azimuth), dial.y - r * Math.cos(azimuth)];
  });
  const degrees = (r: number) => Math.round((r * 180) / Math.PI);

  function click(event: MouseEvent) {
    const box = svg.getBoundingClientRect();
    const [x, y] = fit.from(event.clientX - box.left, event.clientY - box.top);
    let best = 0;
    let least = Infinity;
    road.x.forEach((rx, i) => {
      if (!inside(i * road.step)) return;
      const d = (rx - x) ** 2 + ((road.y[i] ?? 0) - y) ** 2;
      if (d < least) {
        least = d;
        best = i;
      }
    });
    const h = road.heading[best] ?? 0;
    const dx = x - (road.x[best] ?? 0);
    const dy = y - (road.y[best] ?? 0);
    const station = (best * road.step + dx * Math.cos(h) + dy * Math.sin(h) + road.length) % road.length;
    if (onadd) onadd(station, -dx * Math.sin(h) + dy * Math.cos(h));
    else onmove(station);
  }
</script>

<div bind:clientWidth={width} class="relative w-full">
  <!-- svelte-ignore a11y_click_events_have_key_events -->
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
  <svg
    bind:this={svg}
    {width}
    {height}
    class={['block select-none', onadd ? 'cursor-crosshair' : 'cursor-pointer']}
    role="img"
    aria-label={tell('sunPlan.plan_north_up', {
      elevation: sun && sun.elevation > 0 ? tell('sunPlan.sun_degrees_up', { elevation: degrees(sun.elevation) }) : '',
    })}
    data-plan
    onclick={click}
  >
    <path
      d={pathOf([...both.left, ...both.right.toReversed()].map(fit.to), true)}
      fill="var(--road)"
      stroke="var(--road-edge)"
      stroke-width="0.8"
    />
    {#each things.zones.filter((z) => (z.kind === 'SHADE' || z.kind === 'DAMP') && inside(z.from)) as z (z.id)}
      {@const b = edges(road, z.from, z.from + ((z.to - z.from + road.length) % road.length))}
      <path d={pathOf([...b.left, ...b.right.toReversed()].map(fit.to), true)} fill="url(#zone-{z.kind})" />
    {/each}
    {#each shadows as s (s.id)}<path d={s.d} fill="var(--ink)" opacity="0.25" />{/each}
    {#each corners.filter((c) => inside(c.apexes[0] ?? c.entry)) as c (c.id)}
      {@const i = index(c.apexes[0] ?? c.entry)}
      {@const p = fit.to(
        at(
          c.apexes[0] ?? c.entry,
          (c.left ? 1 : -1) * ((c.left ? (road.left[i] ?? 5) : (road.right[i] ?? 5)) + (whole ? 14 : 9) / fit.k),
        ),
      )}
      <text x={p[0]} y={p[1] + 4} text-anchor="middle" font-weight="700">{c.number}</text>
    {/each}
    {#each things.landmarks.filter((l) => inside(l.station)) as l (l.id)}
      {@const p = fit.to(at(l.station, offsetOf(l)))}
      <circle
        cx={p[0]}
        cy={p[1]}
        r={l.id === selected ? 5.5 : 2.6}
        fill={l.kind === 'TREE' ? 'var(--road-quiet)' : 'var(--color-base-100)'}
        stroke="var(--ink)"
        stroke-width={l.id === selected ? 2.5 : 1}
      />
    {/each}
    {#if whole}
      {@const a = fit.to(at(middle, 0))}
      <circle cx={a[0]} cy={a[1]} r="8" fill="none" stroke="var(--throttle)" stroke-width="2.5" />
    {/if}
    {#if sun}
      <g aria-hidden="true">
        <circle cx={dial.x} cy={dial.y} r={DIAL} fill="var(--color-base-100)" stroke="var(--ink-soft)" />
        <text x={dial.x} y={dial.y - DIAL + 11} text-anchor="middle" style="font-size:10px">N</text>
        <path
          d={pathOf(sun.path.map((m) => onDial(m.azimuth, m.elevation)))}
          fill="none"
          stroke="var(--throttle)"
          stroke-width="1.5"
        />
        {#if sun.elevation > 0}
          {@const p = onDial(sun.azimuth, sun.elevation)}
          <path d="M{dial.x} {dial.y}L{p[0]} {p[1]}" stroke="var(--throttle)" />
          <circle cx={p[0]} cy={p[1]} r="5" fill="var(--throttle)" />
        {/if}
      </g>
      <text x={width - 8} y={dial.y + DIAL + 14} text-anchor="end" style="font-size:11px" data-sun>
        {tell('sunPlan.sun_up_from_the_sun', {
          someElevation: sun.elevation > 0,
          elevation: degrees(sun.elevation),
          azimuth: degrees(sun.azimuth),
        })}
      </text>
    {/if}
  </svg>
  <button type="button" class="btn btn-xs absolute bottom-1 left-1" onclick={() => (whole = !whole)}>
    {tell('sunPlan.this_stretch_whole_lap', { hasWhole: !!whole })}
  </button>
</div>

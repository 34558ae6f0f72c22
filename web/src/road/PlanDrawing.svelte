<script lang="ts">
  import type { Corner, Landmark, RoadView } from '../api/api';
  import { edges, pathOf } from './strip';
  import { tell } from '../words/tell';
  import { follow } from '../kit/drag';

  interface Props {
    road: RoadView;
    corners?: Corner[];
    landmarks?: Landmark[];
    selected?: string;
    height?: number;
    start?: boolean;
    onstart?: (station: number) => void;
    onselect?: (corner: string) => void;
  }
  let {
    road,
    corners = [],
    landmarks = [],
    selected = '',
    height = 480,
    start = false,
    onstart,
    onselect,
  }: Props = $props();

  let width = $state(600);
  let svg: SVGSVGElement;
  const PAD = 34;

  const both = $derived(edges(road, 0, road.length));
  const fit = $derived.by(() => {
    const left = Math.min(...road.x);
    const right = Math.max(...road.x);
    const low = Math.min(...road.y);
    const high = Math.max(...road.y);
    const pad = height < 250 ? 8 : PAD;
    const k = Math.min((width - 2 * pad) / Math.max(1, right - left), (height - 2 * pad) / Math.max(1, high - low));
    const dx = (width - k * (right - left)) / 2;
    const dy = (height - k * (high - low)) / 2;
    return {
      k,
      to: ([x, y]: [number, number]): [number, number] => [dx + (x - left) * k, height - dy - (y - low) * k],
      from: (px: number, py: number): [number, number] => [left + (px - dx) / k, low + (height - dy - py) / k],
    };
  });
  const middle = $derived(
    pathOf(
      road.x.map((x, i) => fit.to([x, road.y[i] ?? 0])),
      true,
    ),
  );
  const band = $derived(Math.max(height < 250 ? 3 : 5, 10 * fit.k));

  function at(station: number, offset = 0): [number, number] {
    const n = road.x.length;
    const i = ((Math.round(station / road.step) % n) + n) % n;
    const h = road.heading[i] ?? 0;
    return fit.to([(road.x[i] ?? 0) - offset * Math.sin(h), (road.y[i] ?? 0) + offset * Math.cos(h)]);
  }
  const marks = $derived(
    corners.map((c) => {
      const s = c.apexes[c.apexes.length - 1] ?? c.entry;
      return { corner: c, at: at(s, (c.left ? 1 : -1) * (18 / fit.k + 6)) };
    }),
  );
  const line = $derived.by(() => {
    const n = road.x.length;
    const i = ((Math.round(shown / road.step) % n) + n) % n;
    return {
      from: at(shown, 12 / fit.k + 6),
      to: at(shown, -12 / fit.k - 6),
      heading: road.heading[i] ?? 0,
      middle: at(shown),
    };
  });

  let dragging = $state<number | null>(null);
  const shown = $derived(dragging ?? 0);

  function nearest(event: PointerEvent): number {
    const box = svg.getBoundingClientRect();
    const [x, y] = fit.from(event.clientX - box.left, event.clientY - box.top);
    let best = 0;
    let least = Infinity;
    road.x.forEach((rx, i) => {
      const d = (rx - x) ** 2 + ((road.y[i] ?? 0) - y) ** 2;
      if (d < least) {
        least = d;
        best = i;
      }
    });
    return best * road.step;
  }
  function down(event: PointerEvent) {
    if (!onstart) return;
    event.preventDefault();
    follow(event, {
      onmove: (e) => (dragging = nearest(e)),
      onend: () => {
        const to = dragging;
        dragging = null;
        if (to) onstart(to);
      },
    });
  }
  function key(event: KeyboardEvent) {
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (!by) return;
    event.preventDefault();
    onstart?.(((by * (event.shiftKey ? 50 : 10)) % road.length) + (by < 0 ? road.length : 0));
  }
</script>

<div bind:clientWidth={width} class="w-full">
  <svg
    bind:this={svg}
    {width}
    {height}
    class="block select-none"
    role="group"
    aria-label={tell('planDrawing.plan_north_up')}
  >
    <path d={pathOf([...both.left, ...both.right.toReversed()].map(fit.to), true)} fill="none" />
    <path d={middle} fill="none" stroke="var(--road-edge)" stroke-width={band + 2} stroke-linejoin="round" />
    <path d={middle} fill="none" stroke="var(--road)" stroke-width={band} stroke-linejoin="round" />
    {#each landmarks as l (l.id)}
      {@const p = at(l.station, (l.left ? 1 : -1) * (band / 2 / fit.k + 4))}
      <circle cx={p[0]} cy={p[1]} r="2" fill="var(--ink-soft)"><title>{l.label}</title></circle>
    {/each}
    {#each marks as m (m.corner.id)}
      {@const on = m.corner.id === selected}
      <g
        role="button"
        tabindex={onselect ? 0 : -1}
        aria-label={tell('planDrawing.corner', { number: m.corner.number })}
        class={onselect ? 'cursor-pointer' : ''}
        onclick={() => onselect?.(m.corner.id)}
        onkeydown={(e) => e.key === 'Enter' && onselect?.(m.corner.id)}
      >
        <circle
          class="focus-ring"
          cx={m.at[0]}
          cy={m.at[1]}
          r="11"
          fill={on ? 'var(--ink)' : 'var(--color-base-100)'}
          stroke="var(--ink)"
        />
        <text
          x={m.at[0]}
          y={m.at[1] + 4}
          text-anchor="middle"
          font-weight="700"
          style={on ? 'fill: var(--color-base-100)' : undefined}>{m.corner.number}</text
        >
      </g>
    {/each}
    {#if start}
      <g
        role="slider"
        tabindex="0"
        aria-label={tell('planDrawing.start_and_finish_line')}
        aria-valuenow={Math.round(shown)}
        aria-valuetext={tell('planDrawing.metres_along_the_lap', { shown: Math.round(shown) })}
        class="cursor-grab touch-none"
        data-start
        onpointerdown={down}
        onkeydown={key}
      >
        <path d="M{line.from[0]} {line.from[1]}L{line.to[0]} {line.to[1]}" stroke="var(--ink)" stroke-width="3.5" />
        <g transform="translate({line.middle[0]} {line.middle[1]}) rotate({(-line.heading * 180) / Math.PI})">
          <circle class="focus-ring" r="15" fill="transparent" stroke-width="2" />
          <path d="M6 -5l10 5l-10 5z" fill="var(--ink)" />
        </g>
      </g>
    {/if}
  </svg>
</div>

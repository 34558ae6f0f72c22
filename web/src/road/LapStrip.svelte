<script lang="ts">
  import type { Corner, CornerEntry, Landmark, RoadView } from '../api/api';
  import { northFrom, lapAcross, middleOf, pathOf, sampleAt, swing } from './strip';
  import { station } from './points';
  import { metres } from '../words/units';
  import { tell } from '../words/tell';

  interface Props {
    road: RoadView;
    corners: Corner[];
    entries?: CornerEntry[];
    landmarks?: Landmark[];
    selected?: string;
    changed?: string[];
    /** A stretch to frame instead of the selected corner. */
    window?: [number, number];
    /** Stations of laps under the cursor, the first filled. */
    at?: number[];
    onselect?: (corner: string) => void;
  }
  let {
    road,
    corners,
    entries = [],
    landmarks = [],
    selected = '',
    changed = [],
    window,
    at = [],
    onselect,
  }: Props = $props();

  const HEIGHT = 134;
  const MIDDLE = 60;
  const SWING = 20;
  const PAD = 14;
  let width = $state(1000);

  const x = $derived(lapAcross(corners, road.length, width));
  const y = (s: number) => MIDDLE - SWING * swing(corners, road.length, s);
  const samples = $derived(Array.from({ length: 401 }, (_, i) => (i / 400) * road.length));
  const line = $derived(pathOf(samples.map((s) => [x(s), y(s)])));
  const low = $derived(Math.min(...road.height));
  const high = $derived(Math.max(...road.height));
  const profile = $derived(
    pathOf([
      [x(0), HEIGHT],
      ...samples.map((s): [number, number] => [
        x(s),
        HEIGHT - 4 - (22 * (sampleAt(road.height, road.step, road.length, s) - low)) / Math.max(high - low, 10),
      ]),
      [x(road.length), HEIGHT],
    ]),
  );
  const needles = $derived(Array.from({ length: 5 }, (_, i) => ((i + 0.15) / 5) * road.length));
  const box = $derived.by(() => {
    if (window) {
      const [a, b] = window;
      const wide = x((b - a + road.length) % road.length) - PAD;
      return { left: x(a), width: Math.min(wide, x(road.length) - x(a) + 6) };
    }
    const c = corners.find((k) => k.id === selected);
    if (!c) return null;
    const entry = entries.find((e) => e.corner === c.id);
    const from = Math.min(entry ? (station(entry, 'BRAKE') ?? c.entry) : c.entry, c.entry);
    const left = x(Math.max(0, from - 30));
    const right = x(Math.min(road.length, c.exit < c.entry ? road.length : c.exit + 30));
    return { left, width: Math.max(36, right - left) };
  });

  function onkeydown(event: KeyboardEvent, corner: string) {
    if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      onselect?.(corner);
    }
  }
</script>

<div bind:clientWidth={width} class="w-full">
  <svg {width} height={HEIGHT} class="block select-none" aria-label={tell('lapStrip.the_lap_unrolled')} role="group">
    {#if road.hasHeight}
      <path d={profile} fill="var(--road-quiet)" opacity="0.75" />
      <text x={PAD + 2} y={HEIGHT - 6} style="font-size:10px"
        >{tell('lapStrip.of_height', { low: metres(high - low) })}</text
      >
    {/if}
    <path d={line} fill="none" stroke="var(--road)" stroke-width="13" stroke-linejoin="round" />
    <path d={line} fill="none" stroke="var(--road-edge)" stroke-width="0.8" stroke-dasharray="6 5" />
    <path d="M{x(0)} {y(0) - 9}v18" stroke="var(--ink)" stroke-width="2.5" />
    {#each needles as s (s)}
      <g transform="translate({x(s)} 11)">
        <circle r="8" fill="none" stroke="var(--ink-soft)" />
        <path d="M0 -6l2.6 8h-5.2z" fill="var(--ink-soft)" transform="rotate({northFrom(road, s) + 90})" />
      </g>
    {/each}
    <path
      d={landmarks
        .map((l) => `M${x(l.station).toFixed(1)} ${(y(l.station) + (l.left ? -7 : 7)).toFixed(1)}v${l.left ? -4 : 4}`)
        .join('')}
      stroke="var(--ink-soft)"
    />
    {#each entries as e (e.corner)}
      {@const at = e.slowing === 'BRAKE' ? station(e, 'BRAKE') : undefined}
      {#if at !== undefined}
        <path d="M{x(at) - 5} {y(at) - 6}h10l-5 9z" fill="var(--brake)" />
      {/if}
    {/each}
    {#each at as s, k (k)}
      {#if k === 0}
        <path d="M{x(s)} 24V100" stroke="var(--ink)" stroke-dasharray="2 3" data-at={Math.round(s)} />
        <circle cx={x(s)} cy={y(s)} r="4.5" fill="var(--ink)" />
      {:else}
        <path
          d="M{x(s)} {y(s) - 6}l6 6l-6 6l-6 -6z"
          fill="var(--color-base-100)"
          stroke="var(--throttle)"
          stroke-width="2"
        />
      {/if}
    {/each}
    {#if box}
      <rect
        x={box.left}
        y="24"
        width={box.width}
        height="78"
        rx="4"
        fill="none"
        stroke="var(--ink)"
        stroke-width="1.5"
      />
    {/if}
    {#each corners as c (c.id)}
      {@const s = middleOf(c, road.length)}
      {@const up = c.left}
      {@const ty = up ? y(s) - 13 : y(s) + 22}
      {@const on = c.id === selected}
      <g
        role="button"
        tabindex="0"
        aria-label={tell('lapStrip.corner_changed', {
          number: c.number,
          name: c.name ? `, ${c.name}` : '',
          hasId: !!changed.includes(c.id),
        })}
        aria-pressed={on}
        class="cursor-pointer"
        data-corner={c.id}
        onclick={() => onselect?.(c.id)}
        onkeydown={(e) => onkeydown(e, c.id)}
      >
        <rect class="focus-ring" x={x(s) - 14} y="22" width="28" height="72" rx="4" fill="transparent" stroke="none" />
        {#if on}<rect x={x(s) - 11} y={ty - 12} width="22" height="16" rx="3" fill="var(--ink)" />{/if}
        <text
          x={x(s)}
          y={ty}
          text-anchor="middle"
          font-weight="700"
          style={on ? 'fill: var(--color-base-100)' : c.uncounted ? 'fill: var(--ink-soft)' : undefined}
          >{c.uncounted ? '·' : c.number}</text
        >
        {#if changed.includes(c.id)}<circle cx={x(s) + 14} cy={ty - 8} r="2.5" fill="var(--throttle)" />{/if}
      </g>
    {/each}
  </svg>
</div>

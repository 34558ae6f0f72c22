<script lang="ts">
  import type { Corner, Landmark, RoadView } from '../../api/api';
  import { pathOf, swing } from '../../road/strip';
  import { apart } from './rehearse';
  import { LANDMARKS } from '../../road/things';
  import { tell } from '../../words/tell';

  /** A piece of road on which a place is told: by a tap, or by the arrow keys. */
  interface Props {
    road: RoadView;
    corners: Corner[];
    landmarks: Landmark[];
    from: number;
    metres: number;
    at: number | null;
    /** Where it is, once it was told. */
    right: number | null;
    precision: number;
    onplace: (station: number) => void;
  }
  let { road, corners, landmarks, from, metres, at, right, precision, onplace }: Props = $props();

  const HEIGHT = 190;
  const MIDDLE = 100;
  let width = $state(700);
  const x = $derived((station: number) => (((station - from + road.length) % road.length) / metres) * width);
  const y = $derived((station: number) => MIDDLE - 34 * swing(corners, road.length, station));
  const samples = $derived(Array.from({ length: 161 }, (_, i) => from + (i / 160) * metres));
  const path = $derived(pathOf(samples.map((s, i) => [(i / 160) * width, y(s)])));
  const shown = $derived(landmarks.filter((l) => (l.station - from + road.length) % road.length < metres));
  /** Names that would stand on each other stand one below the other. */
  const named = $derived.by(() => {
    const ends: Record<string, number> = {};
    return [...shown]
      .map((l) => ({ l, at: x(l.station), word: l.label || LANDMARKS[l.kind].word }))
      .sort((a, b) => a.at - b.at)
      .map((n) => {
        const half = n.word.length * 3.2;
        const side = n.l.left ? tell('placeIt.left') : tell('placeIt.right');
        const row = (ends[side] ?? -Infinity) > n.at - half ? 1 : 0;
        ends[side] = row ? -Infinity : n.at + half + 4;
        return { ...n, row };
      });
  });
  const inside = $derived(corners.filter((c) => (c.entry - from + road.length) % road.length < metres));

  function press(e: MouseEvent & { currentTarget: SVGSVGElement }) {
    const box = e.currentTarget.getBoundingClientRect();
    place(((e.clientX - box.left) / box.width) * metres);
  }
  function place(along: number) {
    if (right !== null) return;
    onplace((from + Math.max(0, Math.min(metres, along))) % road.length);
  }
  function keys(e: KeyboardEvent) {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
    if (by === undefined || right !== null) return;
    e.preventDefault();
    const now = at === null ? metres / 2 : (at - from + road.length) % road.length;
    place(now + by * (e.shiftKey ? 10 : 2));
  }
</script>

<div bind:clientWidth={width}>
  <svg
    {width}
    height={HEIGHT}
    role="slider"
    tabindex="0"
    aria-label={tell('placeIt.place_on_the_road_metres')}
    aria-valuemin={0}
    aria-valuemax={Math.round(metres)}
    aria-valuenow={at === null ? 0 : Math.round((at - from + road.length) % road.length)}
    data-road
    onclick={press}
    onkeydown={keys}
    style="cursor: crosshair; touch-action: manipulation"
    class="focus-ring"
  >
    <path d={path} fill="none" stroke="var(--road)" stroke-width="26" />
    {#each inside as c (c.id)}
      <text
        x={x((c.entry + c.exit) / 2)}
        y={HEIGHT - 8}
        text-anchor="middle"
        style="fill: var(--ink-soft); font-size: 12px">{c.number}</text
      >
    {/each}
    {#each named as n (n.l.id)}
      {@const up = n.l.left ? -1 : 1}
      <path
        d="M{n.at} {y(n.l.station) + up * 13}v{up * (22 + 13 * n.row)}"
        stroke="var(--ink-soft)"
        stroke-width="1.5"
      />
      <text
        x={n.at}
        y={y(n.l.station) + (n.l.left ? -38 - 13 * n.row : 48 + 13 * n.row)}
        text-anchor="middle"
        style="font-size: 11.5px">{n.word}</text
      >
    {/each}
    {#if right !== null}
      <rect
        x={x(right) - (precision / metres) * width}
        y={y(right) - 17}
        width={((2 * precision) / metres) * width}
        height="34"
        fill="var(--turn)"
        opacity="0.25"
      />
      <path data-right d="M{x(right)} {y(right) - 26}v52" stroke="var(--ink)" stroke-width="3" />
    {/if}
    {#if at !== null}
      <path
        data-told
        d="M{x(at)} {y(at) - 22}v44"
        stroke="var(--brake)"
        stroke-width="2.5"
        stroke-dasharray={right === null ? undefined : '4 3'}
      />
    {/if}
    {#if right !== null && at !== null}
      <path d="M{x(at)} {y(at)}H{x(at) + (apart(at, right, road.length) / metres) * width}" stroke="var(--brake)" />
    {/if}
  </svg>
</div>

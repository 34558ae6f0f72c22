<script lang="ts">
  import type { Corner, RehearsalView } from '../../api/api';
  import { lapAcross, middleOf, pathOf, swing } from '../../road/strip';
  import { metres } from '../../words/units';
  import { tell } from '../../words/tell';

  /** The lap with what is known by heart: each place by how far off it was last told, each corner by its worst. */
  interface Props {
    view: RehearsalView;
    corners: Corner[];
    zone: string;
  }
  let { view, corners, zone }: Props = $props();
  const HEIGHT = 170;
  const MIDDLE = 118;
  // Metres at which a bar is as tall as there is room.
  const MOST = 30;
  let width = $state(900);
  const length = $derived(view.clock.length);
  const x = $derived(lapAcross(corners, length, width));
  const y = (s: number) => MIDDLE - 12 * swing(corners, length, s);
  const path = $derived(
    pathOf(Array.from({ length: 301 }, (_, i) => [x((i / 300) * length), y((i / 300) * length)] as [number, number])),
  );
  const places = $derived(view.known.filter((k) => k.asks === 'PLACE'));
  const worst = (corner: string) => {
    const own = places.filter((k) => k.corner === corner);
    if (!own.length) return null;
    return own.some((k) => k.error == null) ? Infinity : Math.max(...own.map((k) => Math.abs(k.error ?? 0)));
  };
  const when = (at: string | null | undefined) =>
    at
      ? new Intl.DateTimeFormat('en-GB', {
          timeZone: zone,
          weekday: 'short',
          hour: '2-digit',
          minute: '2-digit',
        }).format(new Date(at))
      : tell('knownStrip.never');
</script>

<div bind:clientWidth={width}>
  <svg {width} height={HEIGHT} role="group" aria-label={tell('knownStrip.what_is_known_by_heart')}>
    <path d={path} fill="none" stroke="var(--road)" stroke-width="9" stroke-linecap="round" />
    {#each places as k (k.fact)}
      {@const off = k.error == null ? MOST : Math.min(MOST, Math.abs(k.error))}
      {@const tall = 4 + (off / MOST) * 66}
      <rect
        data-known={k.fact}
        x={x(k.station) - 2}
        y={y(k.station) - 8 - tall}
        width="4"
        height={tall}
        fill={k.error == null ? 'none' : off <= 8 ? 'var(--ink)' : 'var(--brake)'}
        stroke={k.error == null || off > 8 ? 'var(--brake)' : 'var(--ink)'}
      >
        <title
          >{tell('knownStrip.last_right_asked_times', {
            error:
              k.error == null
                ? tell('knownStrip.no_idea')
                : tell('knownStrip.off', { error: metres(Math.abs(k.error)) }),
            right: when(k.right),
            times: k.times,
          })}</title
        >
      </rect>
    {/each}
    {#each corners as c (c.id)}
      {@const w = worst(c.id)}
      <text
        x={x(middleOf(c, length))}
        y={HEIGHT - 24}
        text-anchor="middle"
        style="font-size: 13px; font-weight: {w !== null && w <= 8 ? 800 : 400}">{c.number}</text
      >
      <text
        x={x(middleOf(c, length))}
        y={HEIGHT - 8}
        text-anchor="middle"
        style="font-size: 10.5px; fill: var(--ink-soft)">{w === null ? '–' : w === Infinity ? '?' : Math.round(w)}</text
      >
    {/each}
    <text x="4" y="12" style="font-size: 11px; fill: var(--ink-soft)">{tell('knownStrip.how_far_off_each_place')}</text>
  </svg>
</div>

<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import type { PlaceFinding } from '../../api/api';
  import { metres } from '../../words/units';
  import { tell } from '../../words/tell';

  /** A place across the road: the posts of the gap that is asked for, and where each lap passed. */
  interface Props {
    place: PlaceFinding;
    lap?: string;
    onlap?: (lap: string) => void;
  }
  let { place, lap = '', onlap }: Props = $props();
  let width = $state(300);
  // The road as it is seen from the seat: its left edge on the left.
  const from = $derived((m: number) => (place.left ? m : place.room - m));
  const x = $derived(
    scaleLinear(
      [Math.min(-0.5, ...place.driven.map(from)), Math.max(place.room + 0.5, ...place.driven.map(from))],
      [8, width - 8],
    ),
  );
  const missed = $derived(place.missed);
  const edge = $derived(place.left ? tell('placePosts.left') : tell('placePosts.right'));
  /** Off by the way it runs along the edge, not by how far from it. */
  const drifts = $derived(missed && Math.abs(place.off) <= place.tolerance + place.precision);
  const words = $derived(
    drifts
      ? tell('placePosts.drifts', {
          drift: metres(Math.abs(place.drift), 1),
          away: place.drift > 0,
          edge,
          over: metres(place.over),
        })
      : missed
        ? tell('placePosts.too_far_from_near_the', {
            off: metres(Math.abs(place.off), 1),
            someOff: place.off > 0,
            edge,
          })
        : tell('placePosts.as_written_as_far_as', { precision: metres(place.precision, 1) }),
  );
</script>

<figure class="w-full" bind:clientWidth={width} data-place={place.gate} data-missed={missed}>
  <svg {width} height="58" role="img" aria-label={tell('placePosts.place_across_the_road', { words })}>
    <rect x={x(0)} y="12" width={x(place.room) - x(0)} height="34" fill="var(--road)" opacity="0.7" />
    <path
      d="M{x(0)} 8V50M{x(place.room)} 8V50"
      stroke="var(--ink)"
      stroke-width="2"
      stroke-dasharray={missed ? '' : '3 2'}
    />
    {#each [-1, 1] as side (side)}
      {@const at = x(from(place.metres + side * Math.max(0.15, place.tolerance)))}
      <path d="M{at} 12V46" stroke="var(--turn)" stroke-width="3" />
    {/each}
    {#each place.driven as m, k (place.laps[k])}
      {@const on = place.laps[k] === lap}
      <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
      <circle
        cx={x(from(m))}
        cy={29 + ((k % 3) - 1) * 7}
        r={on ? 5 : 3.2}
        fill={on ? 'var(--turn)' : 'var(--ink)'}
        opacity={on ? 1 : 0.62}
        class={onlap ? 'cursor-pointer' : ''}
        onclick={() => onlap?.(place.laps[k] ?? '')}
      />
    {/each}
  </svg>
  <figcaption class="text-xs">
    {tell('placePosts.from_the_edge_at', { place: metres(place.metres, 1), edge, station: metres(place.station) })}
    <strong>{words}</strong>{tell('placePosts.met_on_of', {
      laps: Math.round(place.met * place.laps.length),
      laps2: place.laps.length,
    })}
  </figcaption>
</figure>

<script lang="ts">
  import type { Cue, Landmark, ScoredAction } from '../api/api';
  import type { CornerView } from './cornerView.svelte';
  import { pathOf } from './strip';

  /** How a place is found, drawn on the road: its thing, the sight line to it, the share of it, the seconds since. */
  interface Props {
    view: CornerView;
    cue: Cue;
    /** Where the cue is. */
    station: number;
    /** All that it can hang on. */
    things: Landmark[];
    score: ScoredAction[];
  }
  let { view, cue, station, things, score }: Props = $props();

  const at = $derived(view.near(station));
  const thing = $derived(things.find((t) => t.id === cue.thing));
  const other = $derived(things.find((t) => t.id === cue.other));
  const since = $derived(
    cue.kind === 'SECONDS' ? score.find((s) => s.action.id === cue.other)?.action.station : undefined,
  );
  /** Where another action is, as what is looked at. */
  const looked = $derived(
    cue.kind === 'INTO_VIEW' && !cue.thing ? score.find((s) => s.action.id === cue.other)?.action.station : undefined,
  );
  const seen = $derived(cue.kind === 'INTO_VIEW' || cue.kind === 'OUT_OF_VIEW');
  // Beside the road, out of the way of what stands there.
  const beside = (s: number, left: boolean) => view.y(view.edge(s, left)) + (left ? -10 : 10);
  function along(from: number, to: number, left: boolean) {
    const steps = [0, 0.25, 0.5, 0.75, 1].map((k) => from + k * (to - from));
    return pathOf(steps.map((s) => [view.x(s), beside(s, left)]));
  }
  /** From where to where something is measured beside the road, if anything is. */
  const span = $derived.by((): [number, number] | null => {
    if (!thing) return null;
    const from = view.near(thing.station);
    if (cue.kind === 'PAST' || cue.kind === 'LENGTHS') return [from, at];
    if (cue.kind === 'SHARE') return [from, from + thing.length];
    return cue.kind === 'BETWEEN' && other ? [from, view.near(other.station)] : null;
  });
</script>

<g pointer-events="none" fill="none" stroke="var(--color-primary)" stroke-width="2" data-cue-drawn={cue.kind}>
  <path
    d="M{view.x(at)} {view.y(view.edge(at, true))}V{view.y(view.edge(at, false))}"
    stroke-dasharray="2 3"
    data-cue-at={Math.round(at)}
  />
  {#each [thing, other].filter((t) => t !== undefined) as t, i (i)}
    {@const end = seen && t.length > 0 ? view.near(t.station) + t.length : view.near(t.station)}
    <circle cx={view.x(end)} cy={view.y(view.edge(end, t.left))} r="11" />
    {#if seen}
      <path
        d="M{view.x(at)} {view.y(view.valueAt('offset', at) ?? 0)}L{view.x(end)} {view.y(view.edge(end, t.left))}"
        stroke-dasharray="7 4"
        data-sight
      />
    {/if}
  {/each}
  {#if looked !== undefined}
    {@const to = view.near(looked)}
    <path
      d="M{view.x(at)} {view.y(view.valueAt('offset', at) ?? 0)}L{view.x(to)} {view.y(view.valueAt('offset', to) ?? 0)}"
      stroke-dasharray="7 4"
      data-sight
    />
    <circle cx={view.x(to)} cy={view.y(view.valueAt('offset', to) ?? 0)} r="9" />
  {/if}
  {#if span && thing}
    <path d={along(span[0], span[1], thing.left)} />
    {#each [...span, at] as s, i (i)}
      <path d="M{view.x(s)} {beside(s, thing.left) - 4}v8" />
    {/each}
  {/if}
  {#if since !== undefined}
    {@const from = view.x(view.near(since))}
    {@const to = view.x(at)}
    <path d="M{from} {view.pedalMid}Q{(from + to) / 2} {view.pedalMid - 34} {to} {view.pedalMid}" />
    <path d="M{to} {view.pedalMid}l-6 -6M{to} {view.pedalMid}l-8 1" />
  {:else if !thing && looked === undefined}
    <path d="M{view.x(at)} {view.speedTop}V{view.pedalMid}" stroke-dasharray="2 3" />
  {/if}
</g>

<script lang="ts">
  import type { RehearsalView } from '../../api/api';
  import { metres } from '../../words/units';
  import { ASKS } from './rehearse';

  /** What is often missed, each with ways to remember it. */
  interface Props {
    missed: RehearsalView['missed'];
    reference: string;
    onwrong: (corner: string) => void;
  }
  let { missed, reference, onwrong }: Props = $props();
  // Metres to which hardly any cue tells a place more closely.
  const CLOSE = 4;
</script>

<section class="border-base-300 grid gap-2 border-t pt-2 text-sm" aria-label="Often missed" data-missed>
  <strong>Often missed</strong>
  {#each missed as m (`${m.corner} ${m.kind}`)}
    <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
      {#if m.photo}
        <a href="/api/photos/{m.photo}" target="_blank" rel="noopener"
          ><img src="/api/photos/{m.photo}" alt="What stands beside it" class="h-16 rounded" /></a
        >
      {/if}
      <span class="min-w-60 flex-1">
        <strong>{m.called}, {m.kind ? ASKS.kind(m.kind) : ''}</strong>: {m.missed} of {m.times} times wrong.
        {m.better && m.metres != null
          ? `A better cue: ${m.better}, told to ${metres(m.metres)} and not to ${metres(m.from)}.`
          : m.from <= CLOSE
            ? 'Its cue is close enough: learn the place by the drawing, or drive it wrong once.'
            : 'No better cue is in reach: a thing put on the survey beside it would be one.'}
      </span>
      <a class="btn btn-sm" href="#/reference/{reference}">See it drawn</a>
      <button class="btn btn-sm" onclick={() => onwrong(m.corner)}>Drive it wrong</button>
    </div>
  {/each}
</section>

<script lang="ts">
  import type { RehearsalView } from '../../api/api';
  import { metres } from '../../words/units';
  import { ASKS } from './rehearse';
  import { tell } from '../../words/tell';

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

<section
  class="border-base-300 grid gap-2 border-t pt-2 text-sm"
  aria-label={tell('missedPanel.often_missed')}
  data-missed
>
  <strong>{tell('missedPanel.often_missed')}</strong>
  {#each missed as m (`${m.corner} ${m.kind}`)}
    <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
      {#if m.photo}
        <a href="/api/photos/{m.photo}" target="_blank" rel="noopener"
          ><img src="/api/photos/{m.photo}" alt={tell('missedPanel.what_stands_beside_it')} class="h-16 rounded" /></a
        >
      {/if}
      <span class="min-w-60 flex-1">
        <strong>{m.called}, {m.kind ? ASKS.kind(m.kind) : ''}</strong>{tell('missedPanel.of_times_wrong', {
          missed: m.missed,
          times: m.times,
          cLOSE:
            m.better && m.metres != null
              ? tell('missedPanel.a_better_cue_told_to', {
                  better: m.better,
                  m: metres(m.metres),
                  from: metres(m.from),
                })
              : tell('missedPanel.its_cue_is_close_enough', { isFrom: m.from <= CLOSE }),
        })}
      </span>
      <a class="btn btn-sm" href="#/reference/{reference}">{tell('missedPanel.see_it_drawn')}</a>
      <button class="btn btn-sm" onclick={() => onwrong(m.corner)}>{tell('missedPanel.drive_it_wrong')}</button>
    </div>
  {/each}
</section>

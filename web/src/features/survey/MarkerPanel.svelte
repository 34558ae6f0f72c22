<script lang="ts">
  import type { Corner, Judgement, MarkerReview } from '../../api/api';
  import { POINTS } from '../../road/points';
  import { metres } from '../../words/units';
  import { cornerWord } from '../../words/words';
  import { tell } from '../../words/tell';

  interface Props {
    review: MarkerReview;
    corners: Corner[];
    onselect: (landmark: string | null, corner: string) => void;
  }
  let { review, corners, onselect }: Props = $props();

  const GRADE: Record<Judgement['grade'], [string, string]> = {
    SOLID: ['●', tell('markerPanel.solid')],
    USABLE: ['◐', tell('markerPanel.usable')],
    WEAK: ['○', tell('markerPanel.weak')],
    NOT_TO_BE_RELIED_ON: ['×', tell('markerPanel.not_to_be_relied_on')],
  };
  const word = (id: string) => {
    const c = corners.find((k) => k.id === id);
    return c ? cornerWord(c) : id;
  };
  // Weak ones first: they are what the driver came to see.
  const tied = $derived(
    review.points.filter((p) => p.judgement).toSorted((a, b) => (a.judgement?.marks ?? 0) - (b.judgement?.marks ?? 0)),
  );
  const past = (m: number) =>
    Math.abs(m) < 1
      ? tell('markerPanel.at')
      : `${metres(Math.abs(m))} ${m > 0 ? tell('markerPanel.past') : tell('markerPanel.before')}`;
</script>

<div class="grid content-start gap-2 text-sm" data-markers>
  {#if review.bare.length}
    <section>
      <h3 class="font-bold">{tell('markerPanel.corners_without_a_good_marker')}</h3>
      <ul>
        {#each review.bare as b (b.corner)}
          <li class="border-base-300 border-b py-1">
            <button type="button" class="link font-semibold" onclick={() => onselect(null, b.corner)}
              >{word(b.corner)}</button
            >
            {POINTS[b.kind].word}:
            {#if b.serves.length}
              {#each b.serves.slice(0, 3) as s, i (s.words)}{tell('markerPanel.to', {
                  before: i ? '; ' : '',
                  words: s.words,
                  precision: metres(s.precision, 1),
                })}{/each}
            {:else}
              {tell('markerPanel.nothing_recorded_near_it_look')}
            {/if}
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  <section>
    <h3 class="font-bold">{tell('markerPanel.markers_in_use')}</h3>
    <ul>
      {#each tied as p (p.corner + p.kind)}
        {#if p.judgement}
          {@const j = p.judgement}
          <li class="border-base-300 border-b py-1" data-marker="{p.corner} {p.kind}" data-marks={j.marks}>
            <button type="button" class="text-left" onclick={() => onselect(j.landmark, p.corner)}>
              <span aria-hidden="true">{GRADE[j.grade][0]}</span>
              <strong>{word(p.corner)}</strong>
              {POINTS[p.kind].word.toLowerCase()}
              {past(p.past)}
              {p.spoken}
              <span class="block pl-4">
                {GRADE[j.grade][1]}{j.reasons.length ? ': ' + j.reasons.map((r) => r.words).join('; ') : ''}
              </span>
              {#if p.better}
                <span class="block pl-4" style="color:var(--sky)">
                  {tell('markerPanel.better', {
                    past: past(p.better.past),
                    spoken: p.better.spoken,
                    grade: GRADE[p.better.grade][1],
                  })}
                </span>
              {/if}
            </button>
          </li>
        {/if}
      {/each}
    </ul>
  </section>
</div>

<script lang="ts">
  import { onMount } from 'svelte';
  import { api, ask, asProblem, type Problem } from '../../api/api';
  import type { components } from '../../api/generated/api';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { clock, day } from '../../words/clock';
  import { FELT } from '../../words/felt';
  import { tell } from '../../words/tell';

  /** What the driver felt in a corner, session by session, for a coach who was let in. */
  let { reference, corner }: { reference: string; corner: string } = $props();
  let sessions = $state.raw<components['schemas']['SessionSeen'][]>([]);
  let problem = $state.raw<Problem | null>(null);
  onMount(async () => {
    try {
      sessions = await ask(api.GET('/api/references/{id}/sessions-seen', { params: { path: { id: reference } } }));
    } catch (e) {
      problem = asProblem(e);
    }
  });

  /** Of the corner: beside what was driven where laps are there, else as it was said. */
  const felt = (s: (typeof sessions)[number]) => {
    const beside = s.felt.corners.find((f) => f.corner === corner);
    if (beside) return beside.words.replace(/^you /, '');
    const said = s.lines.filter((l) => l.told.about === 'CORNER' && l.told.corner === corner).at(-1)?.told.felt;
    if (said) return tell('feltThere.said', { said: FELT[said] });
    return s.lines.some((l) => l.told.about === 'REST')
      ? tell('feltThere.said_as_planned')
      : tell('feltThere.nothing_said_of_it');
  };
</script>

{#if problem}<ProblemBox {problem} />{/if}
{#if sessions.length}
  <section class="grid gap-1" aria-label={tell('feltThere.what_the_driver_felt_here')} data-felt-there>
    {#each sessions as s (s.id)}
      <div class="border-base-300 border-l-4 pl-2 leading-tight">
        <p><strong>{s.name}, {day(s.begins, s.zone)} {clock(s.begins, s.zone)}</strong> {felt(s)}</p>
        {#each s.lines.filter((l) => l.told.about === 'NOTE') as l (l.id)}
          {#if l.told.seconds}
            <audio
              class="h-8 w-full"
              controls
              preload="none"
              src="/api/sessions/{s.id}/log/{l.id}/sound"
              aria-label={tell('feltThere.spoken_note_of', { name: s.name })}
            ></audio>
          {:else}<p>“{l.told.words}”</p>{/if}
        {/each}
      </div>
    {/each}
  </section>
{/if}

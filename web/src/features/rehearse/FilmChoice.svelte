<script lang="ts">
  import { api, ask, asProblem } from '../../api/api';
  import { lapsOf } from '../film/film';
  import type { Film } from './rehearse';
  import { tell } from '../../words/tell';

  /** A film of one's own, lined up on the Runs page before: its pictures are the questions then. */
  interface Props {
    film: Film | null;
    length: number;
    onfilm: (film: Film | null) => void;
  }
  let { film, length, onfilm }: Props = $props();
  let problem = $state('');

  async function open(e: Event & { currentTarget: HTMLInputElement }) {
    const file = e.currentTarget.files?.[0];
    if (!file) return;
    problem = '';
    try {
      for (const { lap, alignment } of await lapsOf(file)) {
        const trace = await ask(api.GET('/api/laps/{id}/trace', { params: { path: { id: lap } } }));
        // A lap of another circuit shows other places.
        if (Math.abs(trace.times.length * trace.step - length) > 5) continue;
        onfilm({ url: URL.createObjectURL(file), trace, alignment });
        return;
      }
      problem = tell('filmChoice.this_film_is_not_lined');
    } catch (error) {
      const told = asProblem(error);
      problem = `${told.message} ${told.remedy}`;
    }
  }
  function away() {
    if (film) URL.revokeObjectURL(film.url);
    onfilm(null);
  }
</script>

<div class="flex flex-wrap items-center gap-2 text-sm" data-film-choice>
  {#if film}
    <span>{tell('filmChoice.pictures_of_your_film_are')}</span>
    <button class="btn btn-xs" onclick={away}>{tell('filmChoice.ask_with_the_strip')}</button>
  {:else}
    <label class="flex flex-wrap items-center gap-2"
      ><span>{tell('filmChoice.ask_with_pictures_of_your')}</span>
      <input class="file-input file-input-xs" type="file" accept="video/*" onchange={(e) => void open(e)} /></label
    >
  {/if}
  {#if problem}<p role="alert"><strong>{problem}</strong></p>{/if}
</div>

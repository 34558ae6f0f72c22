<script lang="ts">
  import { api, ask, asProblem } from '../../api/api';
  import { lapsOf } from '../film/film';
  import type { Film } from './rehearse';

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
      problem = 'This film is not lined up with a lap of this circuit yet: do that once on the Runs page.';
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
    <span>Pictures of your film are the questions.</span>
    <button class="btn btn-xs" onclick={away}>Ask with the strip</button>
  {:else}
    <label class="flex flex-wrap items-center gap-2"
      ><span>Ask with pictures of your own film, lined up before:</span>
      <input class="file-input file-input-xs" type="file" accept="video/*" onchange={(e) => void open(e)} /></label
    >
  {/if}
  {#if problem}<p role="alert"><strong>{problem}</strong></p>{/if}
</div>

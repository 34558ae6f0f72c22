<script lang="ts">
  import { onDestroy } from 'svelte';
  import type { Corner } from '../../api/api';
  import { cornerWord } from '../../words/words';
  import { lapTime as lapWords, plain, signed } from '../../words/units';
  import { keepCuts, keptCuts, nextCut, pieces, type Cut } from './film';
  import { tell } from '../../words/tell';

  /** A film without any data, cut by hand at the line and the corners: times of its pieces beside the plan's. */
  interface Props {
    corners: Corner[];
    /** Seconds of the plan at each corner's apex, by id. */
    plan: Record<string, number>;
    lapTime: number;
    onclose: () => void;
  }
  let { corners, plan, lapTime, onclose }: Props = $props();

  let video = $state<HTMLVideoElement>();
  let file = $state.raw<File | null>(null);
  let url = $state('');
  let problem = $state('');
  let cuts = $state.raw<Cut[]>([]);
  let shown = $state(0);
  const STEP = 1 / 30;
  const order = $derived(corners.map((c) => c.id));
  const next = $derived(nextCut(cuts, order));
  const all = $derived(pieces(cuts, order, plan, lapTime));
  const laps = $derived.by(() => {
    const lines = cuts.filter((c) => c.at === '').map((c) => c.film);
    return lines.slice(1).map((t, i) => t - (lines[i] ?? t));
  });
  const longest = $derived(Math.max(1, ...all.map((p) => p.seconds)));
  const named = (id: string) => {
    const c = corners.find((o) => o.id === id);
    return c ? cornerWord(c) : 'line';
  };

  async function open(e: Event & { currentTarget: HTMLInputElement }) {
    const chosen = e.currentTarget.files?.[0];
    if (!chosen) return;
    URL.revokeObjectURL(url);
    problem = '';
    file = chosen;
    url = URL.createObjectURL(chosen);
    cuts = await keptCuts(chosen).catch(() => []);
  }
  async function put(changed: Cut[]) {
    cuts = [...changed].sort((a, b) => a.film - b.film);
    if (file) await keepCuts(file, cuts).catch(() => undefined);
  }
  /** Says that the vehicle is there now; the same moment is not two places. */
  const cut = (at: string) =>
    video && void put([...cuts.filter((c) => Math.abs(c.film - shown) > STEP), { at, film: shown }]);
  function frame(by: number) {
    video?.pause();
    if (video) video.currentTime = Math.max(0, video.currentTime + by * STEP);
  }
  function keys(e: KeyboardEvent) {
    if (!url || e.ctrlKey || e.metaKey || e.altKey || (e.target as HTMLElement).closest?.('input, select, textarea'))
      return;
    if (e.key === ',' || e.key === '.') frame(e.key === ',' ? -1 : 1);
    else if (e.key === 'x') cut(next);
    else return;
    e.preventDefault();
  }
  /** The pieces as a table. */
  const table = $derived(
    [
      'from,to,seconds,planned',
      ...all.map((p) =>
        [named(p.from), named(p.to), p.seconds.toFixed(3), p.planned === null ? '' : p.planned.toFixed(3)].join(','),
      ),
    ].join('\n'),
  );
  onDestroy(() => URL.revokeObjectURL(url));
</script>

<svelte:window onkeydown={keys} />

<section
  class="bg-base-100 border-base-300 grid gap-2 rounded border p-2 text-sm"
  aria-label={tell('cutPanel.film_without_data')}
  data-cut
>
  {#if !url}
    <label class="flex flex-wrap items-center gap-3"
      ><span>{tell('cutPanel.a_film_without_a_recording')}</span>
      <input class="file-input file-input-sm" type="file" accept="video/*" onchange={(e) => void open(e)} /></label
    >
  {:else}
    <div class="grid gap-3 md:grid-cols-2">
      <video
        bind:this={video}
        src={url}
        muted
        controls
        playsinline
        preload="auto"
        class="w-full rounded bg-black"
        ontimeupdate={() => (shown = video?.currentTime ?? 0)}
        onseeked={() => (shown = video?.currentTime ?? 0)}
        onerror={() => (problem = tell('cutPanel.this_browser_does_not_play'))}
      ></video>
      <div class="grid content-start gap-2">
        <p>
          {tell('cutPanel.stop_where_the_vehicle_is')}
        </p>
        <div class="flex flex-wrap gap-1">
          <button class="btn btn-sm" onclick={() => frame(-1)} aria-label={tell('cutPanel.one_frame_back')}>◂</button>
          <button class="btn btn-sm" onclick={() => frame(1)} aria-label={tell('cutPanel.one_frame_on')}>▸</button>
          <button class="btn btn-sm btn-primary" onclick={() => cut(next)}
            >{next ? tell('cutPanel.apex_of', { next: named(next) }) : tell('cutPanel.the_line')}
            <kbd class="kbd kbd-xs">x</kbd></button
          >
          <select
            class="select select-sm w-auto"
            aria-label={tell('cutPanel.cut_at_another_place')}
            value="-"
            onchange={(e) => {
              cut(e.currentTarget.value);
              e.currentTarget.value = '-';
            }}
          >
            <option value="-" disabled>{tell('cutPanel.other')}</option>
            <option value="">{tell('cutPanel.the_line_2')}</option>
            {#each corners as c (c.id)}<option value={c.id}>{cornerWord(c)}</option>{/each}
          </select>
          {#if cuts.length}
            <button class="btn btn-sm" onclick={() => void put(cuts.slice(0, -1))}
              >{tell('cutPanel.take_the_last_back')}</button
            >
          {/if}
        </div>
        {#each laps as t, i (i)}<p data-cut-lap>
            <strong>{tell('cutPanel.lap', { number: i + 1, time: lapWords(t) })}</strong>{tell('cutPanel.planned', {
              lapTime: lapWords(lapTime),
            })}
          </p>{/each}
      </div>
    </div>
    {#if problem}<p role="alert"><strong>{problem}</strong></p>{/if}
    {#if all.length}
      <ol class="flex flex-wrap gap-2" aria-label={tell('cutPanel.pieces_of_the_film')}>
        {#each all as p, i (i)}
          <li class="w-28" data-piece="{p.from}-{p.to}">
            <svg width="100%" height="10" aria-hidden="true">
              <rect width="{(p.seconds / longest) * 100}%" height="6" fill="var(--ink)" />
              {#if p.planned !== null}
                <rect x="{(p.planned / longest) * 100}%" width="2" height="10" fill="var(--brake)" />
              {/if}
            </svg>
            {named(p.from)} – {named(p.to)}: {plain(p.seconds, 2)} s{p.planned === null
              ? ''
              : `, ${signed(p.seconds - p.planned, 2)}`}
          </li>
        {/each}
      </ol>
      <p class="flex gap-2">
        <a class="btn btn-xs" download="pieces.csv" href="data:text/csv;charset=utf-8,{encodeURIComponent(table)}"
          >{tell('cutPanel.keep_as_a_table_csv')}</a
        >
      </p>
    {/if}
  {/if}
  <button class="btn btn-xs justify-self-start" onclick={onclose}>{tell('cutPanel.close')}</button>
</section>

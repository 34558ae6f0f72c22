<script lang="ts">
  import { onDestroy } from 'svelte';
  import type { Corner } from '../../api/api';
  import { cornerWord } from '../../words/words';
  import { lapTime as lapWords, plain, signed } from '../../words/units';
  import { keepCuts, keptCuts, nextCut, pieces, type Cut } from './film';

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
  aria-label="Film without data"
  data-cut
>
  {#if !url}
    <label class="flex flex-wrap items-center gap-3"
      ><span>A film without a recording. It is shown from your disk and sent nowhere.</span>
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
        onerror={() => (problem = 'This browser does not play this film. WebM (VP8, VP9) and MP4 (H.264) are usual.')}
      ></video>
      <div class="grid content-start gap-2">
        <p>
          Stop where the vehicle is at the place, and cut. A cut is right to a frame or two; speeds are not told by it.
        </p>
        <div class="flex flex-wrap gap-1">
          <button class="btn btn-sm" onclick={() => frame(-1)} aria-label="One frame back">◂</button>
          <button class="btn btn-sm" onclick={() => frame(1)} aria-label="One frame on">▸</button>
          <button class="btn btn-sm btn-primary" onclick={() => cut(next)}
            >{next ? `Apex of ${named(next)}` : 'The line'} <kbd class="kbd kbd-xs">x</kbd></button
          >
          <select
            class="select select-sm w-auto"
            aria-label="Cut at another place"
            value="-"
            onchange={(e) => {
              cut(e.currentTarget.value);
              e.currentTarget.value = '-';
            }}
          >
            <option value="-" disabled>other…</option>
            <option value="">the line</option>
            {#each corners as c (c.id)}<option value={c.id}>{cornerWord(c)}</option>{/each}
          </select>
          {#if cuts.length}
            <button class="btn btn-sm" onclick={() => void put(cuts.slice(0, -1))}>Take the last back</button>
          {/if}
        </div>
        {#each laps as t, i (i)}<p data-cut-lap>
            <strong>Lap {i + 1}: {lapWords(t)}</strong>, planned {lapWords(lapTime)}
          </p>{/each}
      </div>
    </div>
    {#if problem}<p role="alert"><strong>{problem}</strong></p>{/if}
    {#if all.length}
      <ol class="flex flex-wrap gap-2" aria-label="Pieces of the film">
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
          >Keep as a table, CSV</a
        >
      </p>
    {/if}
  {/if}
  <button class="btn btn-xs justify-self-start" onclick={onclose}>Close</button>
</section>

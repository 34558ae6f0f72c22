<script lang="ts">
  import { onDestroy } from 'svelte';
  import { api, ask, asProblem, type TraceView } from '../../api/api';
  import { signed, speedText } from '../../words/units';
  import { filmTimeOf, follow, lapsOf, timeAt, type Alignment } from './film';
  import { tell } from '../../words/tell';

  /** Another film of another lap at the same place of the road: the first one leads. */
  interface Props {
    trace: TraceView;
    here: number | null;
    playing: boolean;
    slow: number;
    rate: number;
    onclose: () => void;
  }
  let { trace, here, playing, slow, rate, onclose }: Props = $props();

  let video = $state<HTMLVideoElement>();
  let url = $state('');
  let problem = $state('');
  let other = $state.raw<{ trace: TraceView; alignment: Alignment } | null>(null);
  /** Frames shown while playing, and those more than a frame from the first film's place. */
  const frames = { shown: 0, late: 0 };
  let box = $state<HTMLElement>();

  async function open(e: Event & { currentTarget: HTMLInputElement }) {
    const file = e.currentTarget.files?.[0];
    if (!file) return;
    problem = '';
    try {
      const laps = await lapsOf(file);
      const known = laps.find((l) => l.lap !== trace.id) ?? laps[0];
      if (!known) {
        problem = tell('beside.this_film_is_not_lined');
        return;
      }
      const its = await ask(api.GET('/api/laps/{id}/trace', { params: { path: { id: known.lap } } }));
      if (Math.abs(its.times.length * its.step - trace.times.length * trace.step) > 5) {
        problem = tell('beside.this_film_is_of_a');
        return;
      }
      other = { trace: its, alignment: known.alignment };
      URL.revokeObjectURL(url);
      url = URL.createObjectURL(file);
    } catch (error) {
      const told = asProblem(error);
      problem = `${told.message} ${told.remedy}`;
    }
  }
  const apart = $derived(here === null || !other ? null : timeAt(other.trace, here) - timeAt(trace, here));
  const speedOf = (t: TraceView, s: number) => t.speed[Math.round(s / t.step) % t.speed.length] ?? 0;

  $effect(() => {
    if (!video || !other) return;
    // Outside of the lap there is no place to be beside.
    if (here === null) return video.pause();
    const target = filmTimeOf(other.alignment, timeAt(other.trace, here));
    if (!playing) {
      video.pause();
      video.currentTime = Math.max(0, target);
      return;
    }
    const off = target - video.currentTime;
    // At the same place the slower one needs more of its film for a metre.
    const ratio = speedOf(trace, here) / Math.max(1, speedOf(other.trace, here));
    const go = follow(off, slow, ratio);
    frames.shown++;
    if (Math.abs(off) > 1 / rate) frames.late++;
    if (box) box.dataset.late = `${frames.late}/${frames.shown}`;
    if (go.jump) video.currentTime = Math.max(0, target);
    video.playbackRate = go.rate;
    if (video.paused) void video.play().catch(() => (problem = tell('beside.the_browser_does_not_play')));
  });
  onDestroy(() => URL.revokeObjectURL(url));
</script>

<div class="grid content-start gap-1 text-sm" data-beside bind:this={box}>
  {#if url && other}
    <video
      bind:this={video}
      src={url}
      muted
      playsinline
      preload="auto"
      class="w-full rounded bg-black"
      onerror={() => (problem = tell('beside.this_browser_does_not_play'))}
    ></video>
    <p data-beside-apart>
      {other.trace.title}{here === null || apart === null
        ? ''
        : tell('beside.here_s_since_the_line', {
            here: speedText(speedOf(other.trace, here)),
            apart: signed(apart, 2),
          })}
    </p>
  {:else}
    <label class="flex flex-wrap items-center gap-2"
      ><span>{tell('beside.the_film_of_another_lap')}</span>
      <input class="file-input file-input-sm" type="file" accept="video/*" onchange={(e) => void open(e)} /></label
    >
  {/if}
  {#if problem}<p role="alert"><strong>{problem}</strong></p>{/if}
  <button class="btn btn-xs justify-self-start" onclick={onclose}>{tell('beside.only_one_film')}</button>
</div>

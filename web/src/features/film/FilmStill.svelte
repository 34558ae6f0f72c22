<script lang="ts">
  import type { TraceView } from '../../api/api';
  import { filmTimeOf, timeAt, type Alignment } from './film';
  import { tell } from '../../words/tell';

  /** One picture of a film: where the vehicle is at a station. */
  interface Props {
    url: string;
    trace: TraceView;
    alignment: Alignment;
    station: number;
  }
  let { url, trace, alignment, station }: Props = $props();
  let video = $state<HTMLVideoElement>();
  let ready = $state(false);
  $effect(() => {
    const to = filmTimeOf(alignment, timeAt(trace, station));
    if (video && ready) video.currentTime = Math.max(0, to);
  });
</script>

<video
  bind:this={video}
  src={url}
  muted
  playsinline
  preload="auto"
  class="max-h-80 w-full rounded bg-black object-contain"
  data-film-still={station.toFixed(1)}
  aria-label={tell('filmStill.a_picture_of_your_film')}
  onloadeddata={() => (ready = true)}
></video>

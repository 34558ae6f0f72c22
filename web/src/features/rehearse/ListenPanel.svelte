<script lang="ts">
  import { onDestroy } from 'svelte';
  import { asProblem, fetchFile, type ClockView, type Problem, type RehearsalView } from '../../api/api';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { plain } from '../../words/units';
  import { tell } from '../../words/tell';

  /** The lap called aloud at true speed: by the browser's voice where it has one, and always as large words. */
  interface Props {
    calls: RehearsalView['calls'];
    /** The lap in ten seconds. */
    summary: string[];
    clock: ClockView;
    session: string;
    /** Whether the server has a voice of its own. */
    spoken: boolean;
  }
  let { calls, summary, clock, session, spoken }: Props = $props();

  const TEN = 10;
  /** Seconds since one began to say it aloud; null before and after. */
  let saying = $state<number | null>(null);
  let open = $state(false);
  let ten: ReturnType<typeof setInterval> | undefined;
  /** Ten seconds for the lap by heart; then what there was to say. */
  function say() {
    open = false;
    saying = 0;
    const from = performance.now();
    clearInterval(ten);
    ten = setInterval(() => {
      saying = (performance.now() - from) / 1000;
      if (saying >= TEN) compare();
    }, 100);
  }
  function compare() {
    clearInterval(ten);
    saying = null;
    open = true;
  }

  let sound = $state('');
  let making = $state(false);
  let problem = $state.raw<Problem | null>(null);
  /** The lap as a file, by the server's voice. */
  async function make() {
    making = true;
    problem = null;
    try {
      const file = await fetchFile(`/api/sessions/${session}/calls.wav`);
      URL.revokeObjectURL(sound);
      sound = URL.createObjectURL(file);
    } catch (e) {
      problem = asProblem(e);
    } finally {
      making = false;
    }
  }

  const voice = 'speechSynthesis' in window ? window.speechSynthesis : null;
  let running = $state(false);
  let aloud = $state(true);
  let now = $state(0);
  let began = 0;
  let timer: ReturnType<typeof setInterval> | undefined;
  const said: boolean[] = [];
  // Calls before the line belong to the first corner of the lap.
  const first = $derived(Math.min(0, ...calls.map((c) => c.start)) - 2);
  const current = $derived(running ? calls.findLast((c) => c.start <= now && now < c.at + 0.4) : undefined);
  const coming = $derived(calls.find((c) => c.start > now));

  function go() {
    running = true;
    said.length = 0;
    began = performance.now();
    timer = setInterval(tick, 50);
    tick();
  }
  function tick() {
    now = first + (performance.now() - began) / 1000;
    calls.forEach((c, i) => {
      if (now < c.start || said[i]) return;
      said[i] = true;
      // A call that is late is not made: it would be heard at its marker.
      if (voice && aloud && now < c.start + 0.5) {
        const words = new SpeechSynthesisUtterance(c.text);
        words.rate = 1.1;
        voice.speak(words);
      }
    });
    if (now > clock.lapTime) stop();
  }
  function stop() {
    running = false;
    clearInterval(timer);
    voice?.cancel();
  }
  onDestroy(() => {
    stop();
    clearInterval(ten);
    URL.revokeObjectURL(sound);
  });
</script>

<section class="grid grid-cols-[minmax(0,1fr)] gap-2">
  <div class="flex flex-wrap items-center gap-3">
    {#if running}
      <button class="btn min-h-14 text-lg" onclick={stop}>{tell('listenPanel.stop')}</button>
    {:else}
      <button class="btn btn-primary min-h-14 text-lg" onclick={go}>{tell('listenPanel.call_the_lap')}</button>
    {/if}
    <label class="flex items-center gap-1"
      ><input type="checkbox" class="checkbox checkbox-sm" bind:checked={aloud} disabled={!voice} />{tell(
        'listenPanel.aloud',
      )}</label
    >
    <span class="text-sm">{tell('listenPanel.for_a_passenger_or_when', { hasVoice: !!voice })}</span>
  </div>
  <p class="min-h-24 text-4xl leading-tight font-bold" data-call aria-live="off">{current?.text ?? ''}</p>
  {#if running && coming}<p class="text-lg opacity-80">{coming.text}</p>{/if}
  {#if problem}<ProblemBox {problem} />{/if}
  <div class="flex flex-wrap items-center gap-3 text-sm" data-sound>
    {#if sound}
      <audio controls src={sound} class="h-10"></audio>
      <a class="btn btn-sm" href={sound} download="calls.wav">{tell('listenPanel.keep_the_file')}</a>
      <span>{tell('listenPanel.a_short_tone_is_the')}</span>
    {:else if spoken}
      <button class="btn btn-sm" disabled={making} onclick={() => void make()}
        >{tell('listenPanel.speaking_the_lap_make_a', { hasMaking: !!making })}</button
      >
    {:else}
      <span>{tell('listenPanel.this_server_has_no_voice')}</span>
    {/if}
  </div>
  <div class="border-base-300 grid gap-2 border-t pt-2" data-ten>
    <div class="flex flex-wrap items-center gap-3">
      <strong>{tell('listenPanel.the_lap_in_ten_seconds')}</strong>
      {#if saying === null}
        <button class="btn btn-sm" onclick={say}>{tell('listenPanel.say_it_aloud')}</button>
        <button class="btn btn-sm" aria-expanded={open} onclick={() => (open = !open)}
          >{tell('listenPanel.cover_it_read_it', { hasOpen: !!open })}</button
        >
      {:else}
        <progress class="progress w-40" max={TEN} value={saying} aria-label={tell('listenPanel.ten_seconds')}
        ></progress>
        <span class="tabular-nums">{plain(Math.max(0, TEN - saying), 0)} s</span>
        <button class="btn btn-sm" onclick={compare}>{tell('listenPanel.that_was_it')}</button>
      {/if}
    </div>
    {#if open}
      <p class="text-xl leading-snug">
        {tell('listenPanel.there_is_nothing_to_brake', { summary: summary.join('. '), hasSummary: !!summary.length })}
      </p>
    {/if}
  </div>
  {#if !running}
    <ol class="columns-1 gap-6 text-sm sm:columns-2" aria-label={tell('listenPanel.calls_of_the_lap')}>
      {#each calls as c (c.start)}
        <li class="break-inside-avoid">
          <span class="inline-block w-14 text-right">{plain(c.start, 1)} s</span>
          {c.text}
        </li>
      {/each}
    </ol>
  {/if}
</section>

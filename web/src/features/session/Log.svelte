<script lang="ts">
  import { onDestroy, untrack } from 'svelte';
  import { api, ask, asProblem, Problem, type Felt, type LogLine, type PlannedSession, type Told } from '../../api/api';
  import { keepOffline } from '../../api/offline';
  import { newId } from '../../kit/id';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { browserLog, deviceName, merged, send, type Line } from './log';
  import { browserSounds, record, sendSounds, silent, type Recording } from './spoken';
  import { clock } from '../../words/clock';
  import { standing } from './sessions';
  import { FELT } from '../../words/felt';
  import { few } from '../../words/few';
  import { tell } from '../../words/tell';

  let { params }: { params: { id: string } } = $props();
  const shelf = browserLog();
  const device = deviceName();
  let view = $state.raw<PlannedSession | null>(null);
  let problem = $state<Problem | null>(null);
  let server = $state.raw<LogLine[]>([]);
  let waiting = $state.raw<Line[]>([]);
  let picked = $state('');
  let words = $state('');
  let litres = $state<number | undefined>();
  let burntIn = $state<number | undefined>();
  let hot = $state<(number | undefined)[]>([]);
  let minutes = $state<number | undefined>(1);
  let bled = $state(false);
  let about = $state<'WEATHER' | 'TRAFFIC' | 'FLAGS' | 'LEARNED' | 'NOTE'>('LEARNED');
  let offline = $state(false);
  const sounds = browserSounds();
  /** Spoken notes that wait here, by the id of their line. */
  let unsent = $state.raw<Record<string, string>>({});
  let speaking = $state.raw<Recording | null>(null);
  async function shelved(id: string) {
    for (const url of Object.values(unsent)) URL.revokeObjectURL(url);
    unsent = Object.fromEntries((await sounds.read(id)).map((s) => [s.id, URL.createObjectURL(s.sound)]));
  }
  async function speak() {
    problem = null;
    try {
      if (!speaking) {
        speaking = await record(() => void speak());
        return;
      }
      const of = speaking;
      speaking = null;
      const { sound, seconds } = await of.stop();
      const id = newId();
      await sounds.put(params.id, [{ id, sound }]);
      await shelved(params.id);
      await say({ about: 'NOTE', words: '', seconds: Math.round(seconds * 10) / 10 }, id);
    } catch (e) {
      speaking = null;
      problem = asProblem(e);
    }
  }

  $effect(() => {
    const id = params.id;
    untrack(async () => {
      waiting = await shelf.read(id);
      await shelved(id);
      try {
        view = await ask(api.GET('/api/sessions/{id}', { params: { path: { id } } }));
        server = await ask(api.GET('/api/sessions/{id}/log', { params: { path: { id } } }));
        void keepOffline([`/api/sessions/${id}`, `/api/sessions/${id}/log`]);
        void navigator.storage?.persist?.();
        await flush();
      } catch (e) {
        if (!view) problem = asProblem(e);
      }
    });
  });
  const timer = setInterval(() => void flush(), 5000);
  onDestroy(() => {
    clearInterval(timer);
    void speaking?.stop();
    for (const url of Object.values(unsent)) URL.revokeObjectURL(url);
  });

  let sending = false;
  async function flush() {
    if ((!waiting.length && !Object.keys(unsent).length) || sending) return;
    sending = true;
    try {
      const answer = await send(shelf, params.id);
      if (answer) server = answer;
      waiting = await shelf.read(params.id);
      offline = false;
      problem = await sendSounds(sounds, params.id);
      await shelved(params.id);
    } catch (e) {
      const p = asProblem(e);
      offline = p.status === 0 || p.status >= 500;
      if (!offline) problem = p;
    } finally {
      sending = false;
    }
  }
  async function say(told: Partial<Told> & Pick<Told, 'about'>, id = newId()) {
    const line: Line = {
      id,
      device,
      at: new Date().toISOString(),
      told: { words: '', hot: [], bled: false, ...told },
      removed: false,
    };
    await shelf.put(params.id, [line]);
    waiting = await shelf.read(params.id);
    navigator.vibrate?.(20);
    void flush();
  }
  const lines = $derived(merged(server, waiting));
  const stands = $derived(standing(lines));
  const zone = $derived(view?.line.session.timing.start.zone ?? 'UTC');
  const plan = $derived(view?.plan ?? null);
  const corners = $derived.by(() => {
    const all = plan?.corners ?? [];
    const focus = plan?.focus.map((f) => f.focus.corner) ?? [];
    return [...all.filter((c) => focus.includes(c.corner)), ...all.filter((c) => !focus.includes(c.corner))];
  });
  const focus = $derived(plan?.focus.map((f) => f.focus.corner) ?? []);
  const last = $derived([...lines].reverse().find((l) => !l.removed && l.device === device));

  async function undo() {
    if (!last) return;
    await shelf.put(params.id, [{ ...last, removed: true }]);
    waiting = await shelf.read(params.id);
    void flush();
  }
  async function felt(f: Felt) {
    const corner = picked;
    picked = '';
    await say({ about: 'CORNER', corner, felt: f, words: '' });
  }
  const number = (e: Event & { currentTarget: HTMLInputElement }) =>
    Number.isFinite(e.currentTarget.valueAsNumber) ? e.currentTarget.valueAsNumber : undefined;
  const WHEELS = $derived(
    plan?.motorcycle
      ? ['front', 'rear']
      : [tell('log.front_left'), tell('log.front_right'), tell('log.rear_left'), tell('log.rear_right')],
  );
  const shown = (l: Line | LogLine): string => {
    const t = l.told;
    const called = plan?.corners.find((c) => c.corner === t.corner)?.called ?? t.corner ?? '';
    if (t.about === 'CORNER' && t.felt) return `${called}: ${FELT[t.felt]}`;
    if (t.about === 'REST') return tell('log.the_rest_as_planned');
    if (t.about === 'FUEL') return tell('log.l_in_laps', { litres: t.litres, laps: t.laps ?? '?' });
    if (t.about === 'PRESSURES')
      return tell('log.hot_kpa_bled_min_after', {
        p: t.hot.filter((p) => p != null).join(', '),
        hasBled: !!t.bled,
        isMinutes: (t.minutes ?? 0) > 2,
        minutes: t.minutes,
      });
    if (t.seconds) return tell('log.spoken_s', { seconds: Math.round(t.seconds) });
    return `${few(t.about)}: ${t.words}`;
  };
</script>

<main class="mx-auto grid max-w-3xl gap-4 p-3 pb-28 text-lg">
  {#if problem}<ProblemBox {problem} />{/if}
  {#if !view}
    {#if !problem}<p role="status">{tell('log.opening_the_log')}</p>{/if}
  {:else}
    <header>
      <h1 class="text-xl font-bold">{tell('log.how_was', { name: view.line.session.name })}</h1>
      <p class="text-base">{tell('log.say_it_first_before_the')}</p>
      <!-- It has its place whether it says something or not, so that nothing moves under the thumb. -->
      <p class="h-7 text-base" role="status">
        {#if waiting.length}
          <strong>{tell('log.kept_on_this_device_no', { waiting: waiting.length, hasOffline: !!offline })}</strong>
        {:else if lines.length}{tell('log.all_sent')}{/if}
      </p>
    </header>
    {#if picked}
      <div class="grid grid-cols-2 gap-3" role="group" aria-label={tell('log.how_it_went')}>
        <p class="col-span-2 text-2xl font-bold">{plan?.corners.find((c) => c.corner === picked)?.called}</p>
        {#each Object.entries(FELT) as [f, w] (f)}
          <button class="btn h-16 text-xl" data-feel={f} onclick={() => felt(f as Felt)}>{w}</button>
        {/each}
        <button class="btn btn-ghost col-span-2 h-16 text-xl" onclick={() => (picked = '')}>{tell('log.back')}</button>
      </div>
    {:else}
      <div
        class="grid grid-cols-3 gap-3 sm:grid-cols-5"
        role="group"
        aria-label={tell('log.corners_those_in_focus_first')}
      >
        {#each corners as c (c.corner)}
          {@const f = stands.felt.get(c.corner)}
          <button
            class={[
              'btn h-16 flex-col gap-0 px-1 text-xl',
              focus.includes(c.corner) ? 'border-base-content border-2' : '',
            ]}
            data-log-corner={c.called}
            onclick={() => (picked = c.corner)}
          >
            {c.called}
            <span class="text-sm font-normal"
              >{f
                ? FELT[f]
                : tell('log.as_planned_focus', { hasRest: !!stands.rest, hasCorner: !!focus.includes(c.corner) })}</span
            >
          </button>
        {/each}
      </div>
      <div class="grid grid-cols-2 gap-3">
        <button
          class="btn btn-primary h-16 text-xl"
          data-rest
          onclick={() => say({ about: 'REST' })}
          disabled={stands.rest}>{tell('log.the_rest_as_planned_2')}</button
        >
        <button class="btn h-16 text-xl" onclick={undo} disabled={!last}>{tell('log.undo')}</button>
      </div>

      <form
        class="grid gap-2"
        onsubmit={(e) => {
          e.preventDefault();
          if (words.trim()) void say({ about, words: words.trim() });
          words = '';
        }}
      >
        <div class="flex flex-wrap gap-2" role="group" aria-label={tell('log.about')}>
          {#each [['LEARNED', tell('log.one_thing_learned')], ['WEATHER', few('WEATHER')], ['TRAFFIC', few('TRAFFIC')], ['FLAGS', few('FLAGS')], ['NOTE', few('NOTE')]] as const as [a, w] (a)}
            <button
              type="button"
              class={['btn min-h-11', about === a ? 'btn-primary' : '']}
              aria-pressed={about === a}
              onclick={() => (about = a)}>{w}</button
            >
          {/each}
        </div>
        <div class="flex gap-2">
          <input class="input h-14 flex-1 text-lg" aria-label={tell('log.words')} maxlength="2000" bind:value={words} />
          <button class="btn h-14 text-lg" disabled={!words.trim()}>{tell('log.keep')}</button>
        </div>
        {#if silent()}
          <p class="text-base">{silent()}</p>
        {:else}
          <button
            type="button"
            class={['btn h-16 text-xl', speaking ? 'btn-primary' : '']}
            aria-pressed={!!speaking}
            onclick={speak}>{tell('log.stop_and_keep_it_say', { hasSpeaking: !!speaking })}</button
          >
        {/if}
      </form>

      <details>
        <summary class="min-h-11 font-semibold">{tell('log.hot_pressures_fuel')}</summary>
        <div class="grid gap-3">
          <div class="grid grid-cols-2 gap-2">
            {#each WHEELS as w, i (w)}
              <label class="flex items-center gap-2 text-base"
                ><span class="flex-1">{w} kPa</span><input
                  class="input h-12 w-24"
                  type="number"
                  inputmode="decimal"
                  value={hot[i] ?? ''}
                  oninput={(e) => (hot[i] = number(e))}
                /></label
              >
            {/each}
            <label class="flex items-center gap-2 text-base"
              ><span class="flex-1">{tell('log.minutes_after_stopping')}</span><input
                class="input h-12 w-24"
                type="number"
                value={minutes ?? ''}
                oninput={(e) => (minutes = number(e))}
              /></label
            >
            <label class="flex items-center gap-2 text-base"
              ><input type="checkbox" class="checkbox" bind:checked={bled} />{tell('log.air_let_out_before')}</label
            >
          </div>
          <p class="text-base">
            {tell('log.later_than_2_minutes_after')}
          </p>
          <button
            class="btn h-14"
            disabled={!hot.some((p) => p)}
            onclick={() => {
              void say({
                about: 'PRESSURES',
                hot: WHEELS.map((_, i) => hot[i] ?? null) as number[],
                minutes,
                bled,
              });
              hot = [];
            }}>{tell('log.keep_pressures')}</button
          >
          <div class="flex flex-wrap items-end gap-2">
            <label class="grid text-base"
              >{tell('log.litres_burnt')}<input
                class="input h-12 w-28"
                type="number"
                step="0.1"
                value={litres ?? ''}
                oninput={(e) => (litres = number(e))}
              /></label
            >
            <label class="grid text-base"
              >{tell('log.in_laps')}<input
                class="input h-12 w-24"
                type="number"
                value={burntIn ?? ''}
                oninput={(e) => (burntIn = number(e))}
              /></label
            >
            <button
              class="btn h-14"
              disabled={!litres || !burntIn}
              onclick={() => {
                void say({ about: 'FUEL', litres, laps: burntIn });
                litres = undefined;
                burntIn = undefined;
              }}>{tell('log.keep_fuel')}</button
            >
          </div>
        </div>
      </details>
      <ul class="grid gap-1 text-base" data-log>
        {#each [...lines].reverse().filter((l) => !l.removed) as l (l.id)}
          <li class="flex flex-wrap items-center gap-2">
            {clock(l.at, zone)}
            {shown(l)}{l.device === device ? '' : ` · ${l.device}`}
            {#if l.told.seconds}
              <audio
                class="h-10 max-w-full flex-1"
                controls
                preload="none"
                src={unsent[l.id] ?? `/api/sessions/${params.id}/log/${l.id}/sound`}
              ></audio>
            {/if}
          </li>
        {/each}
      </ul>
      <p class="text-base">
        <a class="link" href="#/session/{params.id}">{tell('log.the_plan')}</a>
        {tell('log.feelings_are_yours_alone_and')}
      </p>
    {/if}
  {/if}
</main>

<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { onMount } from 'svelte';
  import {
    api,
    ask,
    asProblem,
    type Corner,
    type DayChoice,
    type Job,
    type Problem,
    type RunLine,
    type Taken,
    type TrialView,
  } from '../../api/api';
  import { cornerWord } from '../../words/words';
  import { wayWords } from '../trials/trials';
  import { end } from '../../api/jobs';
  import JobNote from '../../kit/JobNote.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { tell } from '../../words/tell';

  /** A drive by the simulated driver, in the place of a device. */
  interface Props {
    reference: string;
    corners: Corner[];
    days: DayChoice[];
    run: RunLine | null;
    onclose: (taken: Taken | null) => void;
  }
  let { reference, corners, days, run, onclose }: Props = $props();

  const mistakes = createQuery(() => ({
    queryKey: ['mistakes'],
    queryFn: () => ask(api.GET('/api/logger/mistakes')),
    staleTime: Infinity,
  }));
  /** Trials of the run's session that are driven, not set up. */
  const trials = createQuery(() => ({
    queryKey: ['trials', 'driven', run?.session],
    enabled: !!run?.session,
    queryFn: () => ask(api.GET('/api/sessions/{id}/trials', { params: { path: { id: run?.session ?? '' } } })),
    select: (all: TrialView[]) => all.filter((t) => !t.stints && t.order.length),
  }));
  let trial = $state('');
  /** Laps that a trial takes, with those before the tyres are warm. */
  const takes = (t: TrialView) => t.from - 1 + t.order.length;
  let dialog = $state<HTMLDialogElement>();
  let laps = $state(8);
  let live = $state(false);
  let worn = $state(false);
  let fresh = $state(true);
  let spread = $state(1.5);
  /** The same number drives the same laps again; none is by chance. */
  let seed = $state<number | null>(null);
  let day = $state('');
  let habits = $state<{ mistake: string; corner: string }[]>([]);
  let busy = $state(false);
  let job = $state.raw<Job | null>(null);
  let problem = $state.raw<Problem | null>(null);
  onMount(() => {
    // A run that waits for its laps, as a session makes it, is what is driven, on its day.
    if (run && !run.recordings.length && !run.laps.length) {
      fresh = false;
      day = days.find((d) => d.word === run.day)?.word ?? day;
    }
    dialog?.showModal();
  });

  async function go(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    problem = null;
    try {
      const started = await ask(
        api.POST('/api/references/{id}/logger', {
          params: { path: { id: reference } },
          body: {
            run: fresh ? null : (run?.id ?? null),
            name: null,
            day,
            trial: (!fresh && trial) || null,
            laps,
            habits: habits.map((h) => ({ ...h, size: 1 })) as never,
            spread,
            pace: 0.98,
            live,
            worn,
            speedUp: 30,
            seed: seed ?? null,
          } as never,
        }),
      );
      const ended = await end(started, (j) => (job = j));
      if (!ended?.made || !ended.run) return;
      dialog?.close();
      onclose({ id: ended.made, run: ended.run, known: false });
    } catch (e) {
      problem = asProblem(e);
    } finally {
      busy = false;
      job = null;
    }
  }
</script>

<dialog bind:this={dialog} class="modal" aria-labelledby="logger-title" onclose={() => onclose(null)}>
  <form class="modal-box grid max-w-xl gap-3" onsubmit={go}>
    <h2 id="logger-title" class="text-lg font-bold">{tell('loggerDialog.drive_with_the_simulated_logger')}</h2>
    <p>
      {tell('loggerDialog.a_stand_in_for_a')}
    </p>
    <div class="flex flex-wrap items-end gap-3">
      <label class="grid gap-1"
        >{tell('loggerDialog.laps')}<input class="input w-20" type="number" min="1" max="60" bind:value={laps} /></label
      >
      <label class="grid gap-1">
        {tell('loggerDialog.day')}
        <select class="select w-36" name="drive-day" bind:value={day}>
          {#each days as d (d.word)}<option value={d.word}>{d.called}</option>{/each}
        </select>
      </label>
      <label class="grid flex-1 gap-1">
        {tell('loggerDialog.how_evenly_it_drives')}
        <select class="select w-full" bind:value={spread}>
          <option value={0.7}>{tell('loggerDialog.very_evenly')}</option><option value={1.5}
            >{tell('loggerDialog.evenly')}</option
          ><option value={3}>{tell('loggerDialog.unevenly')}</option>
        </select>
      </label>
      <label class="grid gap-1">
        {tell('loggerDialog.same_again')}
        <input
          class="input w-28"
          type="number"
          min="0"
          max="999999"
          step="1"
          placeholder={tell('loggerDialog.by_chance')}
          title={tell('loggerDialog.a_number_drives_the_same')}
          bind:value={seed}
        />
      </label>
    </div>
    <fieldset class="grid gap-1">
      <legend>{tell('loggerDialog.mistakes')}</legend>
      {#each habits as h, i (i)}
        <div class="flex gap-2">
          <select class="select select-sm flex-1" aria-label={tell('loggerDialog.mistake')} bind:value={h.mistake}>
            {#each mistakes.data ?? [] as m (m.mistake)}<option value={m.mistake}>{m.words}</option>{/each}
          </select>
          <select class="select select-sm w-28" aria-label={tell('loggerDialog.at_corner')} bind:value={h.corner}>
            {#each corners as c (c.id)}<option value={c.id}>{cornerWord(c)}</option>{/each}
          </select>
          <button type="button" class="btn btn-sm" onclick={() => habits.splice(i, 1)}
            >{tell('loggerDialog.drop')}</button
          >
        </div>
      {/each}
      <button
        type="button"
        class="btn btn-sm w-fit"
        onclick={() => habits.push({ mistake: 'BRAKES_LATE_RUNS_DEEP', corner: corners[0]?.id ?? '' })}
        >{tell('loggerDialog.add_a_mistake')}</button
      >
    </fieldset>
    <label class="flex items-center gap-2">
      <input type="checkbox" class="checkbox checkbox-sm" bind:checked={live} />
      {tell('loggerDialog.send_it_live_line_by')}
    </label>
    <label class="flex items-center gap-2">
      <input type="checkbox" class="checkbox checkbox-sm" bind:checked={worn} />
      {tell('loggerDialog.with_a_device_whose_positions')}
    </label>
    {#if run}
      <label class="flex items-center gap-2">
        <input type="checkbox" class="checkbox checkbox-sm" bind:checked={fresh} />
        {tell('loggerDialog.as_a_new_run')}
      </label>
    {/if}
    {#if !fresh && trials.data?.length}
      <label class="grid gap-1">
        {tell('loggerDialog.in_the_order_of_a')}
        <select
          class="select w-full"
          bind:value={trial}
          onchange={() => {
            const t = trials.data?.find((o) => o.id === trial);
            if (t) laps = Math.min(60, Math.max(laps, takes(t)));
          }}
        >
          <option value="">{tell('loggerDialog.none')}</option>
          {#each trials.data as t (t.id)}<option value={t.id}
              >{tell('loggerDialog.or_laps', {
                called: t.called,
                first: wayWords(t.a),
                second: wayWords(t.b),
                takes: takes(t),
              })}</option
            >{/each}
        </select>
      </label>
    {/if}
    {#if job}<JobNote {job} words="Driving" onproblem={(p) => (problem = p)} />{/if}
    {#if problem}<ProblemBox {problem} />{/if}
    <div class="modal-action mt-0">
      <button type="button" class="btn" onclick={() => dialog?.close()}>{tell('loggerDialog.not_now')}</button>
      <button class="btn btn-primary" disabled={busy}>{tell('loggerDialog.driving_drive', { hasBusy: !!busy })}</button>
    </div>
  </form>
</dialog>

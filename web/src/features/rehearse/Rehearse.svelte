<script lang="ts">
  import { onDestroy, untrack } from 'svelte';
  import {
    api,
    ask,
    asProblem,
    type Performed,
    type PlannedSession,
    type Problem,
    type ReferenceView,
    type RehearsalView,
    type RoadView,
  } from '../../api/api';
  import { keepOffline } from '../../api/offline';
  import { here } from '../../kit/here.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { clock, day, until } from '../../words/clock';
  import DrivePanel from './DrivePanel.svelte';
  import KnownStrip from './KnownStrip.svelte';
  import ListenPanel from './ListenPanel.svelte';
  import MissedPanel from './MissedPanel.svelte';
  import OnPurposePanel from './OnPurposePanel.svelte';
  import RecallPanel from './RecallPanel.svelte';
  import { browserAnswers, send, type Answer } from './rehearse';
  import { tell } from '../../words/tell';

  let { params }: { params: { id: string } } = $props();

  type Way = 'recall' | 'drive' | 'listen' | 'wrong';
  const WAYS: { id: Way; word: string }[] = [
    { id: 'recall', word: tell('rehearse.recall') },
    { id: 'drive', word: tell('rehearse.drive_it') },
    { id: 'listen', word: tell('rehearse.listen') },
    { id: 'wrong', word: tell('rehearse.wrong_on_purpose') },
  ];
  let way = $state<Way>('recall');
  let session = $state.raw<PlannedSession | null>(null);
  let view = $state.raw<RehearsalView | null>(null);
  let reference = $state.raw<ReferenceView | null>(null);
  let road = $state.raw<RoadView | null>(null);
  let drives = $state.raw<Performed[]>([]);
  let problem = $state.raw<Problem | null>(null);
  let waiting = $state(0);
  let wrong = $state('');
  let cut = $state(false);
  const shelf = browserAnswers();
  const id = $derived(params.id);

  $effect(() => {
    const of = id;
    untrack(async () => {
      try {
        await flush();
        const path = { path: { id: of } };
        session = await ask(api.GET('/api/sessions/{id}', { params: path }));
        view = await ask(api.GET('/api/sessions/{id}/rehearsal', { params: path }));
        const its = { path: { id: view.reference } };
        reference = await ask(api.GET('/api/references/{id}', { params: its }));
        road = await ask(api.GET('/api/references/{id}/road', { params: its }));
        drives = await ask(api.GET('/api/sessions/{id}/rehearsed', { params: path })).catch(() => []);
        here.say(
          session.plan?.vehicle ?? session.event,
          tell('rehearse.by_heart', { name: session.line.session.name }),
          view.reference,
        );
        void keepOffline([
          `/api/sessions/${of}`,
          `/api/sessions/${of}/rehearsal`,
          `/api/sessions/${of}/rehearsed`,
          `/api/references/${view.reference}`,
          `/api/references/${view.reference}/road`,
          '/api/catalogue',
        ]);
      } catch (e) {
        problem = asProblem(e);
      }
    });
  });

  async function flush() {
    try {
      const told = await send(shelf, id);
      if (told?.driven.length)
        drives = [...told.driven, ...drives.filter((d) => !told.driven.some((t) => t.id === d.id))];
      if (told && view) view = { ...view, known: told.known, ready: told.ready, faster: told.faster };
      cut = false;
    } catch {
      cut = true;
      // Kept here, and sent when there is a connection again.
    }
    waiting = (await shelf.read(id)).length;
  }
  const timer = setInterval(() => waiting && void flush(), 5000);
  onDestroy(() => clearInterval(timer));

  async function take(answer: Answer) {
    await shelf.put(id, [answer]);
    waiting++;
    await flush();
  }
  async function again() {
    await flush();
    try {
      view = await ask(api.GET('/api/sessions/{id}/rehearsal', { params: { path: { id } } }));
    } catch (e) {
      problem = asProblem(e);
    }
  }
  const zone = $derived(session?.line.session.timing.start.zone ?? 'UTC');
</script>

<main class="mx-auto grid w-full max-w-[68rem] grid-cols-[minmax(0,1fr)] gap-3 p-3">
  {#if problem}<ProblemBox {problem} />{/if}
  {#if !view || !reference || !road || !session}
    {#if !problem}<p role="status">{tell('rehearse.working_out_what_there_is')}</p>{/if}
  {:else}
    <section class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <h1 class="text-xl font-bold">{tell('rehearse.by_heart_2')}</h1>
      <p class="text-sm">
        {tell('rehearse.for')} <a class="link" href="#/session/{id}">{session.line.session.name}</a>, {day(
          session.line.begins,
          zone,
        )}
        {clock(session.line.begins, zone)}, {until(session.line.begins, Date.now())}
      </p>
      <p class="flex-1 text-sm" data-ready>
        <strong>{tell('rehearse.of', { ready: view.ready.ready, corners: view.ready.corners })}</strong>
        {tell('rehearse.corners_within_8_m')}
        {#if waiting && cut}<span role="status">{tell('rehearse.kept_on_this_device_sent', { waiting })}</span>{/if}
      </p>
    </section>
    <KnownStrip {view} corners={reference.corners} {zone} />
    <div role="tablist" class="flex gap-1">
      {#each WAYS as w (w.id)}
        <button
          role="tab"
          class={['btn min-h-11', way === w.id ? 'btn-primary' : '']}
          aria-selected={way === w.id}
          data-way={w.id}
          onclick={() => (way = w.id)}>{w.word}</button
        >
      {/each}
    </div>
    {#if way === 'recall'}
      {#key view.asked}
        <RecallPanel
          asked={view.asked}
          left={view.left}
          leftIn={view.leftIn}
          {road}
          {reference}
          onanswer={take}
          onmore={again}
        />
      {/key}
    {:else if way === 'drive'}
      <DrivePanel
        clock={view.clock}
        {road}
        {reference}
        {drives}
        faster={view.faster}
        waiting={cut ? waiting : 0}
        ondriven={take}
      />
    {:else if way === 'listen'}
      <ListenPanel
        calls={view.calls}
        summary={view.summary}
        clock={view.clock}
        session={params.id}
        spoken={view.voice}
      />
    {:else}
      <OnPurposePanel session={params.id} {reference} {road} corner={wrong} oncorner={(c) => (wrong = c)} />
    {/if}
    {#if way === 'recall' && view.missed.length}
      <MissedPanel
        missed={view.missed}
        reference={view.reference}
        onwrong={(c) => {
          wrong = c;
          way = 'wrong';
        }}
      />
    {/if}
  {/if}
</main>

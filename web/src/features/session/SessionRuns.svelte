<script lang="ts">
  import { useQueryClient } from '@tanstack/svelte-query';
  import { api, ask, asProblem, type EventView, type PlannedSession, type Problem } from '../../api/api';
  import { clock, day } from '../../words/clock';
  import { tell } from '../../words/tell';

  interface Props {
    view: PlannedSession;
    events: EventView[];
    onchanged: () => void;
    onproblem: (problem: Problem | null) => void;
  }
  let { view, events, onchanged, onproblem }: Props = $props();
  const queries = useQueryClient();
  const id = $derived(view.line.id);
  const zone = $derived(view.line.session.timing.start.zone);

  /** What was done last, and how it is taken back. */
  let done = $state.raw<{ words: string; undo: () => Promise<unknown> } | null>(null);

  async function act(words: string, what: () => Promise<() => Promise<unknown>>) {
    onproblem(null);
    try {
      done = { words, undo: await what() };
    } catch (e) {
      onproblem(asProblem(e));
    }
    void queries.invalidateQueries({ queryKey: ['events'] });
    onchanged();
  }
  async function undo() {
    const last = done;
    done = null;
    if (!last) return;
    try {
      await last.undo();
    } catch (e) {
      onproblem(asProblem(e));
    }
    void queries.invalidateQueries({ queryKey: ['events'] });
    onchanged();
  }
  const join = (session: string, into: string | null) =>
    ask(
      api.PUT('/api/sessions/{id}/joined', {
        params: { path: { id: session } },
        body: { into: into as string },
      }),
    );
  const toEvent = (event: string) =>
    ask(api.PUT('/api/sessions/{id}/event', { params: { path: { id } }, body: { event } }));

  /** Sessions that are this one too, if the driver says so. */
  const others = $derived(
    events
      .flatMap((e) => e.sessions)
      .filter((s) => s.id !== id && s.reference === view.line.reference)
      .sort((a, b) => b.begins.localeCompare(a.begins)),
  );
  function take(other: string) {
    const into = id;
    void act(tell('sessionRuns.taken_in'), async () => {
      await join(other, into);
      return () => join(other, null);
    });
  }
  function own(part: string) {
    const into = id;
    void act(tell('sessionRuns.a_session_of_its_own'), async () => {
      await join(part, null);
      return () => join(part, into);
    });
  }
  function part(run: string) {
    const from = id;
    void act(tell('sessionRuns.a_session_of_its_own_2'), async () => {
      const made = await ask(
        api.POST('/api/sessions/{id}/parts', { params: { path: { id: from } }, body: { runs: [run] } }),
      );
      return () => join(made.id, from);
    });
  }
  function move(event: string) {
    const was = view.line.event;
    void act('Moved.', async () => {
      await toEvent(event);
      return () => toEvent(was);
    });
  }
</script>

<ul class="grid gap-1" aria-label={tell('sessionRuns.runs_of_this_session')}>
  {#each view.runs as r (r.id)}
    <li class="flex items-center gap-2">
      <a class="link flex-1" href="#/debrief/{r.id}">{r.name}, {clock(r.drivenAt, zone)}</a>
      {#if view.runs.length > 1}
        <button
          class="btn btn-xs"
          onclick={() => part(r.id)}
          aria-label={tell('sessionRuns.make_a_session_of_its', { name: r.name })}>{tell('sessionRuns.part')}</button
        >
      {/if}
    </li>
  {/each}
  {#each view.parts as p (p.id)}
    <li class="flex items-center gap-2">
      <span class="flex-1"
        >{tell('sessionRuns.with', { name: p.name, zone: day(p.begins, zone), zone2: clock(p.begins, zone) })}</span
      >
      <button class="btn btn-xs" onclick={() => own(p.id)}>{tell('sessionRuns.part')}</button>
    </li>
  {/each}
</ul>
{#if done}
  <p role="status" class="flex items-center gap-2">
    {done.words} <button class="btn btn-xs" onclick={undo}>{tell('sessionRuns.undo')}</button>
  </p>
{/if}
<div class="grid grid-cols-2 gap-2">
  {#if others.length}
    <select
      class="select select-xs w-full"
      aria-label={tell('sessionRuns.take_another_session_in')}
      value=""
      onchange={(e) => {
        const v = e.currentTarget.value;
        e.currentTarget.value = '';
        if (v) take(v);
      }}
    >
      <option value="">{tell('sessionRuns.take_in')}</option>
      {#each others as s (s.id)}<option value={s.id}
          >{s.session.name}, {day(s.begins, zone)} {clock(s.begins, zone)}</option
        >{/each}
    </select>
  {/if}
  {#if events.length > 1}
    <select
      class="select select-xs w-full"
      aria-label={tell('sessionRuns.event_of_this_session')}
      value={view.line.event}
      onchange={(e) => move(e.currentTarget.value)}
    >
      {#each events as e (e.id)}<option value={e.id}>{e.name}</option>{/each}
    </select>
  {/if}
</div>

<script lang="ts">
  import type { ChannelChoice, MappingColumn, RecordingLine } from '../../api/api';
  import { api, ask, asProblem, type Problem } from '../../api/api';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { tell } from '../../words/tell';

  /** A file of a run: how far it is read, what was done to it, and which column holds what. */
  interface Props {
    recording: RecordingLine;
    mine: boolean;
    choices: ChannelChoice[];
    onchange: () => void;
  }
  let { recording, mine, choices, onchange }: Props = $props();

  let naming = $state(false);
  let columns = $state<MappingColumn[]>([]);
  let problem = $state.raw<Problem | null>(null);
  const open = $derived(naming || recording.state === 'ASKS');
  $effect(() => {
    if (open && columns.length === 0) columns = structuredClone(recording.mapping?.columns ?? []);
  });
  const STATES: Record<RecordingLine['state'], string> = {
    RECEIVING: tell('recordingNote.on_its_way'),
    LIVE: tell('recordingNote.coming_in_live'),
    STORED: tell('recordingNote.stored_waits_to_be_read'),
    ASKS: tell('recordingNote.stored_asks_what_a_column'),
    WORKING: tell('recordingNote.being_read'),
    DONE: tell('recordingNote.read'),
    FAILED: tell('recordingNote.stored_but_not_read'),
    CANCELLED: tell('recordingNote.stored_reading_cancelled'),
  };
  const SORTS = {
    READ: tell('recordingNote.read_2'),
    CLEANED: tell('recordingNote.cleaned'),
    DERIVED: tell('recordingNote.worked_out'),
    DROPPED: tell('recordingNote.left_out'),
  } as const;

  async function act(what: Promise<unknown>) {
    problem = null;
    try {
      await what;
      naming = false;
      onchange();
    } catch (e) {
      problem = asProblem(e);
    }
  }
  const path = $derived({ path: { id: recording.id } });
</script>

<div class="border-base-300 border-t py-1.5 text-sm" data-recording={recording.state}>
  <p class="flex items-baseline gap-2">
    <span class="min-w-0 flex-1 truncate font-semibold" title={recording.name}>{recording.name}</span>
    <span>{STATES[recording.state]}</span>
  </p>
  {#if recording.state === 'WORKING' || recording.state === 'STORED'}
    <div class="flex items-center gap-2">
      <progress
        class="progress flex-1"
        value={recording.progress}
        max="1"
        aria-label={tell('recordingNote.how_much_is_read')}
      ></progress>
      {#if mine}
        <button class="btn btn-xs" onclick={() => act(ask(api.POST('/api/recordings/{id}/cancel', { params: path })))}
          >{tell('recordingNote.cancel')}</button
        >
      {/if}
    </div>
  {/if}
  {#if mine && (recording.state === 'LIVE' || recording.state === 'RECEIVING')}
    <button class="link" onclick={() => act(ask(api.POST('/api/recordings/{id}/again', { params: path })))}
      >{tell('recordingNote.broken_off_read_what_has')}</button
    >
  {/if}
  {#if recording.earlier}
    <p role="status">{tell('recordingNote.read_by_an_earlier_version')}</p>
  {/if}
  {#if recording.problem && recording.state !== 'DONE'}
    <p style="color:var(--turn)">
      {recording.problem.what}
      {recording.problem.where ? `(${recording.problem.where})` : ''}
      {recording.problem.remedy}
    </p>
  {/if}
  {#if problem}<ProblemBox {problem} />{/if}
  {#if recording.report.length}
    <details>
      <summary class="cursor-pointer">{tell('recordingNote.what_was_read_cleaned_worked')}</summary>
      <ul class="ml-3 list-disc" data-report>
        {#each recording.report as r (r.words)}<li>
            <span class="font-semibold">{SORTS[r.sort]}:</span>
            {r.words}
          </li>{/each}
      </ul>
    </details>
  {/if}
  {#if open}
    <table class="mt-1 w-full" aria-label={tell('recordingNote.what_the_columns_hold')}>
      <tbody>
        {#each columns as c (c.index)}
          <tr>
            <td class="max-w-28 truncate pr-2" title={c.header}>{c.header}</td>
            <td>
              <select
                class="select select-xs w-32"
                aria-label={tell('recordingNote.holds', { header: c.header })}
                value={c.channel ?? ''}
                onchange={(e) => {
                  const channel = (e.currentTarget.value || null) as MappingColumn['channel'];
                  const units = choices.find((k) => k.channel === channel)?.units ?? [];
                  columns[c.index] = {
                    ...c,
                    channel,
                    unit: units.some((u) => u.unit === c.unit) ? c.unit : (units[0]?.unit ?? null),
                    guessed: false,
                  } as MappingColumn;
                }}
              >
                <option value="">{tell('recordingNote.not_used')}</option>
                {#each choices as k (k.channel)}<option value={k.channel}>{k.words}</option>{/each}
              </select>
            </td>
            <td>
              <select
                class="select select-xs w-20"
                aria-label={tell('recordingNote.unit_of', { header: c.header })}
                value={c.unit ?? ''}
                disabled={!c.channel}
                onchange={(e) =>
                  (columns[c.index] = {
                    ...c,
                    unit: e.currentTarget.value,
                    guessed: false,
                  } as MappingColumn)}
              >
                {#each choices.find((k) => k.channel === c.channel)?.units ?? [] as u (u.unit)}
                  <option value={u.unit}>{u.symbol || '–'}</option>
                {/each}
              </select>{c.guessed ? ' ?' : ''}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="mt-1 flex gap-2">
      <button
        class="btn btn-xs btn-primary"
        onclick={() => act(ask(api.PUT('/api/recordings/{id}/mapping', { params: path, body: { columns } })))}
        >{tell('recordingNote.read_it_so_and_remember')}</button
      >
      {#if recording.state !== 'ASKS'}<button class="btn btn-xs" onclick={() => (naming = false)}
          >{tell('recordingNote.leave')}</button
        >{/if}
    </p>
  {:else if mine && ['DONE', 'FAILED', 'CANCELLED'].includes(recording.state)}
    <p class="flex flex-wrap gap-x-3">
      {#if recording.mapping?.format === 'TABLE'}
        <button
          class="link"
          onclick={() => {
            columns = [];
            naming = true;
          }}>{tell('recordingNote.columns')}</button
        >
      {/if}
      <button class="link" onclick={() => act(ask(api.POST('/api/recordings/{id}/again', { params: path })))}
        >{tell('recordingNote.read_again')}</button
      >
      <a class="link" href="/api/recordings/{recording.id}/file" download>{tell('recordingNote.the_file_as_it_came')}</a
      >
      {#if recording.truth}<a class="link" href="/api/recordings/{recording.id}/truth" download="truth.json"
          >{tell('recordingNote.the_truth')}</a
        >{/if}
      <button class="link" onclick={() => act(ask(api.DELETE('/api/recordings/{id}', { params: path })))}
        >{tell('recordingNote.remove_it_and_its_laps')}</button
      >
    </p>
  {/if}
</div>

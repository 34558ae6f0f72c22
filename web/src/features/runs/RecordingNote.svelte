<script lang="ts">
  import type { ChannelChoice, MappingColumn, RecordingLine } from '../../api/api';
  import { api, ask, asProblem, type Problem } from '../../api/api';
  import ProblemBox from '../../kit/ProblemBox.svelte';

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
    RECEIVING: 'on its way',
    LIVE: 'coming in live',
    STORED: 'stored, waits to be read',
    ASKS: 'stored; asks what a column holds',
    WORKING: 'being read',
    DONE: 'read',
    FAILED: 'stored, but not read',
    CANCELLED: 'stored, reading cancelled',
  };
  const SORTS = { READ: 'Read', CLEANED: 'Cleaned', DERIVED: 'Worked out', DROPPED: 'Left out' } as const;

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
      <progress class="progress flex-1" value={recording.progress} max="1" aria-label="How much is read"></progress>
      {#if mine}
        <button class="btn btn-xs" onclick={() => act(ask(api.POST('/api/recordings/{id}/cancel', { params: path })))}
          >Cancel</button
        >
      {/if}
    </div>
  {/if}
  {#if mine && (recording.state === 'LIVE' || recording.state === 'RECEIVING')}
    <button class="link" onclick={() => act(ask(api.POST('/api/recordings/{id}/again', { params: path })))}
      >Broken off? Read what has come</button
    >
  {/if}
  {#if recording.earlier}
    <p role="status">Read by an earlier version. It is read again by itself when nothing else is.</p>
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
      <summary class="cursor-pointer">What was read, cleaned, worked out, left out</summary>
      <ul class="ml-3 list-disc" data-report>
        {#each recording.report as r (r.words)}<li>
            <span class="font-semibold">{SORTS[r.sort]}:</span>
            {r.words}
          </li>{/each}
      </ul>
    </details>
  {/if}
  {#if open}
    <table class="mt-1 w-full" aria-label="What the columns hold">
      <tbody>
        {#each columns as c (c.index)}
          <tr>
            <td class="max-w-28 truncate pr-2" title={c.header}>{c.header}</td>
            <td>
              <select
                class="select select-xs w-32"
                aria-label="{c.header} holds"
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
                <option value="">not used</option>
                {#each choices as k (k.channel)}<option value={k.channel}>{k.words}</option>{/each}
              </select>
            </td>
            <td>
              <select
                class="select select-xs w-20"
                aria-label="Unit of {c.header}"
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
        >Read it so, and remember</button
      >
      {#if recording.state !== 'ASKS'}<button class="btn btn-xs" onclick={() => (naming = false)}>Leave</button>{/if}
    </p>
  {:else if mine && ['DONE', 'FAILED', 'CANCELLED'].includes(recording.state)}
    <p class="flex flex-wrap gap-x-3">
      {#if recording.mapping?.format === 'TABLE'}
        <button
          class="link"
          onclick={() => {
            columns = [];
            naming = true;
          }}>Columns</button
        >
      {/if}
      <button class="link" onclick={() => act(ask(api.POST('/api/recordings/{id}/again', { params: path })))}
        >Read again</button
      >
      <a class="link" href="/api/recordings/{recording.id}/file" download>The file as it came</a>
      {#if recording.truth}<a class="link" href="/api/recordings/{recording.id}/truth" download="truth.json"
          >The truth</a
        >{/if}
      <button class="link" onclick={() => act(ask(api.DELETE('/api/recordings/{id}', { params: path })))}
        >Remove it and its laps</button
      >
    </p>
  {/if}
</div>

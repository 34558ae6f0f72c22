<script lang="ts">
  import { onDestroy, onMount } from 'svelte';
  import { ChevronLeft, ChevronRight, Redo2, Undo2 } from '@lucide/svelte';
  import { asProblem, sendForm, type PointKind, type Problem, type ReferenceContent } from '../lib/api';
  import { Desk } from '../lib/desk.svelte';
  import { here } from '../lib/here.svelte';
  import { typing } from '../lib/keys';
  import { degrees, lapTime, metres, signed } from '../lib/units';
  import BrakePanel from '../components/BrakePanel.svelte';
  import ConflictDialog from '../components/ConflictDialog.svelte';
  import CornerStrip from '../components/CornerStrip.svelte';
  import LapStrip from '../components/LapStrip.svelte';
  import ReferenceNotes from '../components/ReferenceNotes.svelte';
  import PlanInset from '../components/PlanInset.svelte';
  import ProblemBox from '../components/ProblemBox.svelte';

  let { params }: { params: { id: string } } = $props();

  let desk = $state.raw<Desk | null>(null);
  let problem = $state<Problem | null>(null);
  let held = $state<PointKind | null>(null);
  let saving = $state<HTMLDialogElement>();
  let reason = $state('');
  let busy = $state(false);
  let saveProblem = $state<Problem | null>(null);

  onMount(async () => {
    try {
      desk = await Desk.open(params.id);
    } catch (e) {
      problem = asProblem(e);
    }
  });

  $effect(() => {
    if (!desk) return;
    const v = desk.view;
    here.say(
      `${v.circuit} ${v.layout} v${v.layoutVersion} · ${v.vehicle}`,
      `${v.revision === 0 ? 'draft' : `after revision ${v.revision}`} · ${desk.changes.length} ${
        desk.changes.length === 1 ? 'corner' : 'corners'
      } changed · dry, warm`,
      v.id,
    );
  });

  onDestroy(() => {
    void desk?.store();
    here.say('', '');
  });

  const KEYS: Record<string, PointKind> = {
    b: 'BRAKE',
    t: 'TURN_IN',
    r: 'RELEASE',
    a: 'APEX',
    f: 'FIRST_THROTTLE',
    g: 'FULL_THROTTLE',
    e: 'EXIT',
  };

  function onkeydown(event: KeyboardEvent) {
    if (!desk || typing(event) || event.altKey) return;
    const command = event.ctrlKey || event.metaKey;
    if (command && event.key.toLowerCase() === 'z') {
      event.preventDefault();
      if (event.shiftKey) desk.redo();
      else desk.undo();
      return;
    }
    if (command) return;
    if (event.key === '[') void desk.step(-1);
    else if (event.key === ']') void desk.step(1);
    else if (event.key === 's') openSave(event);
    else if (/^[1-9]$/.test(event.key) && Number(event.key) <= desk.view.gears) setGear(Number(event.key));
    else if (KEYS[event.key]) document.querySelector<SVGGElement>(`[data-flag=${KEYS[event.key]}]`)?.focus();
  }

  function setGear(gear: number) {
    desk?.edit((e) => ({ ...e, gear }));
  }

  function openSave(event?: Event) {
    event?.preventDefault();
    saveProblem = null;
    saving?.showModal();
  }

  async function save(event: SubmitEvent) {
    event.preventDefault();
    if (!desk) return;
    busy = true;
    try {
      await desk.save(reason);
      reason = '';
      saving?.close();
    } catch (e) {
      saveProblem = asProblem(e);
    } finally {
      busy = false;
    }
  }

  async function bring(files: FileList | null) {
    const file = files?.[0];
    if (!file || !desk) return;
    try {
      desk.replace(await sendForm<ReferenceContent>(`/api/references/${desk.view.id}/read`, { file }));
      desk.problem = null;
    } catch (e) {
      desk.problem = asProblem(e);
    }
  }

  const time = $derived.by(() => {
    const effect = desk?.answer?.answer.lapEffect;
    return effect === undefined || effect === null ? null : effect;
  });
</script>

<svelte:window {onkeydown} onbeforeunload={() => void desk?.store()} />

{#if problem}
  <main class="p-5"><ProblemBox {problem} /></main>
{:else if !desk}
  <p class="p-5" role="status">Opening the reference…</p>
{:else}
  {@const corner = desk.corner}
  {@const entry = desk.entry}
  <main class="px-5 pb-3">
    <LapStrip
      road={desk.road}
      corners={desk.view.corners}
      entries={desk.content.corners}
      landmarks={desk.landmarks}
      selected={desk.selected}
      changed={desk.changes}
      onselect={(c) => desk?.select(c)}
    />
    {#if corner && entry}
      <div class="grid grid-cols-[minmax(0,1fr)_296px] gap-5">
        <section aria-label="Corner {corner.number}">
          <div class="border-base-300 flex items-center gap-3 border-t pt-1.5">
            <h1 class="text-xl font-bold">{corner.number}{corner.name ? ` · ${corner.name}` : ''}</h1>
            <p class="flex-1 text-sm">
              {corner.left ? 'left' : 'right'}, {Math.round(degrees(corner.angle))}°, radius {metres(corner.radius)},
              {corner.kind.toLowerCase().replace('_', ' ')}
            </p>
            <span class="text-sm" role="status">
              {desk.keeping === 'kept' ? 'kept' : desk.keeping === 'waiting' ? 'keeping…' : 'no connection; kept here'}
            </span>
            <div class="join">
              <button
                class="btn btn-sm btn-square join-item"
                aria-label="Undo"
                disabled={!desk.canUndo}
                onclick={() => desk?.undo()}><Undo2 class="size-4" /></button
              >
              <button
                class="btn btn-sm btn-square join-item"
                aria-label="Redo"
                disabled={!desk.canRedo}
                onclick={() => desk?.redo()}><Redo2 class="size-4" /></button
              >
            </div>
            <div class="join">
              <button class="btn btn-sm btn-square join-item" aria-label="Corner before" onclick={() => desk?.step(-1)}
                ><ChevronLeft class="size-4" /></button
              >
              <button class="btn btn-sm btn-square join-item" aria-label="Next corner" onclick={() => desk?.step(1)}
                ><ChevronRight class="size-4" /></button
              >
            </div>
          </div>
          {#if desk.restored}
            <p class="text-sm">What you edited before the reload is back. Undo takes it away.</p>
          {/if}
          {#if desk.problem}<ProblemBox problem={desk.problem} />{/if}
          <CornerStrip
            road={desk.road}
            {corner}
            {entry}
            answer={desk.answer}
            landmarks={desk.landmarks}
            things={{ ...desk.view.things, landmarks: [] }}
            reach={desk.reach}
            doubts={desk.view.doubts.filter((d) => d.corner === corner.id).map((d) => d.kind)}
            grades={desk.grades[corner.id]}
            lap={desk.lap}
            {held}
            height={472}
            onmove={(kind, to) => desk?.move(kind, to, `drag ${corner.id} ${kind}`)}
            onnudge={(kind, by) => desk?.nudge(kind, by)}
            onsettle={() => desk?.settle()}
            onhold={(kind) => (held = kind)}
            onlandmark={(landmark, to) => desk?.moveLandmark(landmark, to)}
          />
          <div class="bg-base-100 border-base-300 mt-1 min-h-[64px] rounded border px-4 py-2" aria-live="polite">
            <p data-sentence>{desk.answer?.words.full ?? ''}</p>
          </div>
        </section>
        <aside class="border-base-300 flex flex-col gap-2 border-l pl-5">
          <BrakePanel {desk} {entry} />
          <div class="flex items-center gap-2">
            <PlanInset road={desk.road} {corner} {entry} answer={desk.answer} size={112} />
            <label class="flex flex-1 flex-col gap-0.5 self-stretch text-sm" for="note">
              Note
              <textarea
                id="note"
                class="textarea min-h-0 w-full flex-1 resize-none leading-tight"
                maxlength="2000"
                value={entry.note}
                oninput={(e) => {
                  const note = e.currentTarget.value;
                  desk?.edit((old) => ({ ...old, note }), `note ${corner.id}`);
                }}
                onblur={() => desk?.settle()}></textarea>
            </label>
          </div>
          <ReferenceNotes {desk} corner={corner.id} />
          <p class="text-xs leading-tight">
            Computed with the vehicle's own numbers on a dry, warm track. An estimate: start early, build up.
          </p>
          <div class="mt-auto flex items-center justify-end gap-2">
            {#if time !== null}<span class="mr-auto text-sm" title="computed lap with this reference"
                >lap {lapTime(desk.lap.lapTime)} {signed(time, 2)}</span
              >{/if}
            <details class="dropdown dropdown-top dropdown-end">
              <summary class="btn btn-sm">File</summary>
              <ul class="menu dropdown-content bg-base-100 border-base-300 z-10 mb-1 w-52 rounded border">
                <li><a href="#/card/{desk.view.id}/0">Print the card</a></li>
                <li><a href="/api/references/{desk.view.id}/export.json" download>Save as JSON</a></li>
                <li><a href="/api/references/{desk.view.id}/export.csv" download>Save as CSV</a></li>
                <li>
                  <label>
                    Bring JSON or CSV
                    <input
                      type="file"
                      class="sr-only"
                      data-bring
                      accept=".json,.csv"
                      onchange={(e) => bring(e.currentTarget.files)}
                    />
                  </label>
                </li>
                <li><button onclick={() => desk?.replace(desk.view.draft)}>Take the computed draft</button></li>
              </ul>
            </details>
            <button class="btn btn-primary btn-sm" onclick={openSave}>Save revision…</button>
          </div>
          {#if desk.view.vehicleChanged}
            <button class="btn btn-sm" onclick={() => desk?.takeVehicle()}>
              Vehicle, sheet or ground differ: compute anew
            </button>
          {/if}
        </aside>
      </div>
    {/if}
  </main>

  <dialog bind:this={saving} class="modal" aria-labelledby="save-title">
    <form class="modal-box grid gap-3" onsubmit={save}>
      <h2 id="save-title" class="text-lg font-bold">Save a revision</h2>
      <p>
        {desk.changes.length === 0
          ? desk.view.revision === 0
            ? 'The draft as it was computed.'
            : 'Nothing differs from the last revision.'
          : `Changed: ${desk.changes.map((c) => desk?.view.corners.find((k) => k.id === c)?.number).join(', ')}.`}
      </p>
      <label class="grid gap-1">
        Why
        <textarea
          class="textarea w-full"
          bind:value={reason}
          required
          maxlength="500"
          placeholder="What you learned, and where"></textarea>
      </label>
      {#if saveProblem}<ProblemBox problem={saveProblem} />{/if}
      <div class="modal-action">
        <button type="button" class="btn" onclick={() => saving?.close()}>Not now</button>
        <button class="btn btn-primary" disabled={busy || reason.trim() === ''}>Save</button>
      </div>
    </form>
  </dialog>
  {#if desk.conflict}<ConflictDialog {desk} conflict={desk.conflict} />{/if}
{/if}

<script lang="ts">
  import { innerWidth } from 'svelte/reactivity/window';
  import { createQuery } from '@tanstack/svelte-query';
  import { onDestroy, tick, untrack } from 'svelte';
  import ChevronLeft from '@lucide/svelte/icons/chevron-left';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import Redo2 from '@lucide/svelte/icons/redo-2';
  import Pencil from '@lucide/svelte/icons/pencil';
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import {
    api,
    ask,
    asProblem,
    sendForm,
    type Action,
    type Detail,
    type Kerb,
    type Pedals,
    type PointKind,
    type Problem,
    type ReferenceContent,
    type ScoredAction,
  } from '../../api/api';
  import { catalogue } from '../../api/catalogue.svelte';
  import { Desk } from './desk.svelte';
  import { here } from '../../kit/here.svelte';
  import { lifted } from '../../kit/drag';
  import { typing } from '../../kit/keys';
  import { degrees, lapTime, radiusText, signed } from '../../words/units';
  import ActionBar from './ActionBar.svelte';
  import ActionCosts from './ActionCosts.svelte';
  import BalancePanel from './BalancePanel.svelte';
  import BrakePanel from './BrakePanel.svelte';
  import ConflictDialog from './ConflictDialog.svelte';
  import CornerStrip from '../../road/CornerStrip.svelte';
  import LapStrip from '../../road/LapStrip.svelte';
  import ReferenceNotes from './ReferenceNotes.svelte';
  import CopyDialog from './CopyDialog.svelte';
  import DaysPanel from './DaysPanel.svelte';
  import FactsPanel from './FactsPanel.svelte';
  import KerbBar from './KerbBar.svelte';
  import NoteBar from './NoteBar.svelte';
  import EdgesPanel from './EdgesPanel.svelte';
  import LaidAnew from './LaidAnew.svelte';
  import GearPanel from './GearPanel.svelte';
  import RemarksPanel from './RemarksPanel.svelte';
  import WaysPanel from './WaysPanel.svelte';
  import PacePanel from './PacePanel.svelte';
  import PlanInset from './PlanInset.svelte';
  import ThumbRuler from './ThumbRuler.svelte';
  import { pressed } from './actionKeys';
  import { LETTERS, likeliest, nearest, nextOf, type Lane } from '../../road/score';
  import { apart, POINTS, station } from '../../road/points';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { LENGTHS, few } from '../../words/few';
  import { tell } from '../../words/tell';

  let { params }: { params: { id: string } } = $props();

  let desk = $state.raw<Desk | null>(null);
  // Pixels that the desk needs across.
  const WIDE = 900;
  // Below this not even a corner fits.
  const NARROW = 340;
  /** On a phone: one column, worked on with fingers. */
  const fingers = $derived((innerWidth.current ?? WIDE) < WIDE);
  // A corner opened up for fingers is drawn so many times wider.
  const OPENED = 3;
  const APART = 44;
  let opened = $state(false);
  let window_ = $state<HTMLElement>();
  /** Where handles stand too near for a finger, the corner opens up round the one that was pressed. */
  async function openUp() {
    if (!fingers || opened || !(await lifted(down)) || opened) return;
    await tick();
    const all = [...(window_?.querySelectorAll('[data-action], [data-grip]') ?? [])];
    const middle = (e: Element) => {
      const box = e.getBoundingClientRect();
      return { x: (box.left + box.right) / 2, y: (box.top + box.bottom) / 2 };
    };
    const chosen = document.activeElement?.matches('[data-action]')
      ? document.activeElement
      : document.activeElement?.querySelector('[data-grip]');
    if (!chosen) return;
    const at = middle(chosen);
    const near = all.some((e) => e !== chosen && Math.hypot(middle(e).x - at.x, middle(e).y - at.y) < APART);
    if (near) await widen(true, at.x);
  }
  /** Draws the corner wider or as a whole again, with what stood at a place on the screen still there. */
  async function widen(wide: boolean, at: number) {
    const left = window_?.getBoundingClientRect().left ?? 0;
    opened = wide;
    await tick();
    if (window_ && wide) window_.scrollLeft = (at - left) * OPENED - window_.clientWidth / 2;
  }
  // What is pressed stays under the finger until it is lifted; else the lifting presses something else.
  let down = false;
  let problem = $state<Problem | null>(null);
  let held = $state<PointKind | null>(null);
  const SHEETS = [
    { id: 'marker', word: tell('reference.marker'), key: 'm' },
    { id: 'ways', word: tell('reference.ways'), key: 'w' },
    { id: 'gears', word: tell('reference.gears'), key: 'q' },
    { id: 'axles', word: tell('reference.axles'), key: 'h' },
    { id: 'edges', word: tell('reference.edges'), key: 'k' },
    { id: 'facts', word: tell('reference.facts'), key: 'o' },
    { id: 'days', word: tell('reference.days'), key: 'd' },
    { id: 'pace', word: tell('reference.pace'), key: 'p' },
    { id: 'remarks', word: tell('reference.remarks'), key: 'n' },
  ] as const;
  type Sheet = (typeof SHEETS)[number]['id'];
  let sheet = $state<Sheet>('marker');
  let picked = $state<Detail | null>(null);
  const SAID = ['pocket', 'line', 'full', 'spoken'] as const;
  let said = $state<(typeof SAID)[number]>('line');
  let copying = $state(false);

  let behind = $state(true);
  const driven = createQuery(() => ({
    queryKey: ['driven', params.id, desk?.selected],
    enabled: !!desk?.selected,
    staleTime: 30_000,
    queryFn: () =>
      ask(
        api.GET('/api/references/{id}/driven/{corner}', {
          params: { path: { id: params.id, corner: desk?.selected ?? '' } },
        }),
      ),
  }));

  $effect(() => {
    const points = driven.data?.points ?? {};
    if (desk)
      desk.laps = Object.fromEntries(
        Object.entries(points).map(([kind, at]) => [kind.toLowerCase().replaceAll('_', '-'), at]),
      );
  });

  function pedals(shape: Pedals, settle: boolean) {
    desk?.edit((e) => ({ ...e, pedals: shape }), `pedals ${desk.selected}`);
    if (settle) desk?.settle();
  }
  /** A note or the use of a kerb in hand; an action that is taken in hand lets go of both. */
  function pick(detail: Detail | null) {
    desk?.letGo();
    kerbed = null;
    picked = detail;
    if (!detail) sheet = 'facts';
  }
  function takeKerb(index: number) {
    desk?.letGo();
    picked = null;
    kerbed = index;
  }
  function dropKerb(index: number) {
    desk?.dropKerb(index);
    kerbed = null;
  }
  let kerbed = $state<number | null>(null);
  let rewording = $state(false);
  $effect(() => {
    void desk?.selected;
    picked = null;
    kerbed = null;
    rewording = false;
  });
  $effect(() => {
    if (desk?.inHand) {
      picked = null;
      kerbed = null;
    }
  });

  let saving = $state<HTMLDialogElement>();
  let reason = $state('');
  let busy = $state(false);
  let saveProblem = $state<Problem | null>(null);

  /** Opens the reference of the address; going from one to another keeps what was not stored yet. */
  async function open(id: string) {
    const before = desk;
    desk = null;
    problem = null;
    try {
      await before?.store();
      const opened = await Desk.open(id);
      if (id === params.id) desk = opened;
    } catch (e) {
      if (id === params.id) problem = asProblem(e);
    }
  }
  $effect(() => {
    const id = params.id;
    untrack(() => void open(id));
  });

  $effect(() => {
    if (!desk) return;
    const v = desk.view;
    here.say(
      `${v.circuit} ${v.layout} v${v.layoutVersion} · ${v.vehicle}`,
      tell('reference.draft_after_revision_corner_corners', {
        driver: v.driver ? `${v.driver}'s · ` : '',
        noRevision: v.revision === 0,
        revision: v.revision,
        changes: desk.changes.length,
        hasVariant: !!desk.variant,
      }),
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
    if (command || event.defaultPrevented) return;
    if (desk.laid && event.key === 'Enter' && !(event.target as HTMLElement | null)?.closest('button, a, summary')) {
      event.preventDefault();
      if (desk.mine && !desk.busy) void desk.takeLaid();
      return;
    }
    // What is typed on an action counts from the press that made it, before it is drawn.
    const fresh = desk.inHand && !document.querySelector(`[data-action="${desk.inHand}"]:focus`) ? inHandNow() : null;
    if (fresh && /^([0-9.%]|Enter|Backspace)$/.test(event.key) && (desk.typed || /^[0-9]$/.test(event.key))) {
      actionKey(event, fresh);
      return;
    }
    if (event.key === 'Escape') {
      if (desk.laid) desk.leaveLaid();
      else desk.pencil = null;
      return;
    }
    if (event.key === ',' || event.key === '<') movePencil(event.shiftKey ? -1 : -5);
    else if (event.key === '.' || event.key === '>') movePencil(event.shiftKey ? 1 : 5);
    else if (event.key === 'v' && desk.mine) desk.makeGate(pencilAt(), true, 0.5);
    else if (desk.pencil !== null && letter(event.key.toLowerCase(), event.shiftKey)) event.preventDefault();
    else if ('lyj'.includes(event.key.toLowerCase()) && letter(event.key.toLowerCase(), event.shiftKey))
      event.preventDefault();
    else if (event.key === 'k' && desk.movable) kerbKey();
    else if (event.key === '[') void desk.step(-1);
    else if (event.key === ']') void desk.step(1);
    else if (event.key === 's' && desk.mine) openSave(event);
    else if (SHEETS.some((t) => t.key === event.key)) sheet = SHEETS.find((t) => t.key === event.key)?.id ?? sheet;
    else if (KEYS[event.key]) document.querySelector<SVGGElement>(`[data-flag=${KEYS[event.key]}]`)?.focus();
  }

  let bar = $state<ReturnType<typeof ActionBar>>();

  function make(lane: Lane, at: number, amount: number): Action | null {
    if (!desk?.entry) return null;
    const kind = likeliest(lane, desk.entry, at, desk.view.length)[0];
    const made = kind ? desk.makeAction(kind, at, amount) : null;
    if (made) focusAction(made.id);
    return made;
  }

  function focusAction(id: string) {
    desk?.takeInHand(id);
    // Its drawing stands as soon as the answer is here.
    const focus = (tries: number) => {
      const drawn = document.querySelector<SVGGElement>(`[data-action="${id}"]`);
      if (drawn) drawn.focus();
      else if (tries) setTimeout(() => focus(tries - 1), 50);
    };
    requestAnimationFrame(() => focus(20));
  }

  /** Where the keys place actions: where the pencil is, or half-way along the approach. */
  function pencilAt(): number {
    const entry = desk?.entry;
    return desk?.pencil ?? (entry ? (station(entry, 'BRAKE') ?? station(entry, 'TURN_IN') ?? 0) : 0);
  }

  /** A letter of a kind: the nearest within 15 m is taken in hand, again goes to the next, with Shift another is added. */
  function letter(key: string, another: boolean): boolean {
    const kind = LETTERS[key];
    if (!desk || !kind || !desk.writes) return false;
    const length = desk.view.length;
    const at = pencilAt();
    const current = desk.held;
    if (!another && current?.action.kind === kind) {
      const next = nextOf(desk.score, current.action.id);
      if (next) focusAction(next.action.id);
      return true;
    }
    const there = another ? undefined : nearest(desk.score, kind, at, length, 15);
    if (there) focusAction(there.action.id);
    else {
      const made = desk.makeAction(kind, at);
      if (made) focusAction(made.id);
    }
    return true;
  }

  /** The kerb nearest the pencil is used, or its use taken in hand. */
  function kerbKey() {
    const entry = desk?.entry;
    if (!desk || !entry) return;
    const { length } = desk.view;
    const at = desk.pencil ?? station(entry, 'APEX') ?? 0;
    const off = (k: Kerb) => Math.min(Math.abs(apart(k.from, at, length)), Math.abs(apart(k.to, at, length)));
    const kerb = desk.view.things.kerbs.filter((k) => k.corner === entry.corner).toSorted((a, b) => off(a) - off(b))[0];
    const part = kerb?.part ?? 'APEX';
    const there = entry.kerbs.findIndex((u) => u.part === part);
    takeKerb(there >= 0 ? there : desk.useKerb({ part, how: 'TOUCH', why: '' }));
    desk.settle();
    const drawn = () => document.querySelector<SVGGElement>(`[data-kerb-use=${part}] [role=slider]`)?.focus();
    requestAnimationFrame(drawn);
  }

  function movePencil(by: number) {
    if (!desk) return;
    desk.pencil = (((pencilAt() + by) % desk.view.length) + desk.view.length) % desk.view.length;
  }

  /** The action in hand, also before an answer tells how it was driven. */
  function inHandNow(): ScoredAction | null {
    const action = desk?.entry?.actions.find((a) => a.id === desk?.inHand);
    return (
      desk?.held ??
      (action ? { action, line: '', speed: 0, time: 0, solved: false, made: true, cues: [], trouble: '' } : null)
    );
  }

  /** What the thumb moves: the action in hand, or the point. */
  const thumb = $derived.by(() => {
    const d = desk;
    if (!d?.movable) return null;
    const s = d.held;
    if (s && d.writes) {
      const by = (metre: number) => {
        const a = d.held?.action ?? s.action;
        const until = a.until == null ? undefined : (a.until + metre + d.view.length) % d.view.length;
        d.putAction(
          { ...a, station: (a.station + metre + d.view.length) % d.view.length, until },
          true,
          `thumb ${a.id}`,
        );
      };
      return { word: few(s.action.kind), station: s.action.station, onmove: by, onsettle: () => d.settle() };
    }
    const kind = held;
    const at = kind && d.entry ? station(d.entry, kind) : undefined;
    if (!kind || at === undefined) return null;
    return {
      word: POINTS[kind].word,
      station: at,
      onmove: (metre: number) => d.nudge(kind, metre),
      onsettle: () => settled(kind, true),
    };
  });

  let refused = $state('');
  function actionKey(event: KeyboardEvent, s: ScoredAction) {
    if (!desk) return;
    // The handle of what was in hand before keeps the keys until the next one is drawn.
    const on = desk.inHand && desk.inHand !== s.action.id ? (inHandNow() ?? s) : s;
    const said = pressed(desk, event, on, { nextCue: () => bar?.nextCue(), find: () => bar?.find() });
    if (said !== null) refused = said;
  }

  /** Where the line is asked to pass elsewhere it is laid anew, once the hand lets go. */
  const LINE: PointKind[] = ['TURN_IN', 'FIRST_APEX', 'APEX', 'EXIT'];
  function settled(kind: PointKind, moved: boolean) {
    desk?.settle();
    const entry = desk?.entry;
    if (desk?.mine && !desk.day && moved && entry && LINE.includes(kind)) void desk.layAnew({ entry }, true);
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

  /** What has changed around the reference comes before the numbers. */
  const pressing = $derived(
    !!desk &&
      (desk.view.newerLayout ||
        desk.view.oldLine ||
        desk.view.vehicleChanged ||
        desk.view.lost.length > 0 ||
        desk.view.doubts.length > 0 ||
        !!desk.view.otherSheetNext),
  );
  const time = $derived.by(() => {
    const effect = desk?.answer?.answer.lapEffect;
    return effect === undefined || effect === null ? null : effect;
  });
</script>

<svelte:window
  {onkeydown}
  onpointerdowncapture={() => (down = true)}
  onpointerup={() => (down = false)}
  onpointercancel={() => (down = false)}
  onbeforeunload={() => void desk?.store()}
/>

{#if problem}
  <main class="p-5"><ProblemBox {problem} /></main>
{:else if !desk}
  <p class="p-5" role="status">{tell('reference.opening_the_reference')}</p>
{:else if (innerWidth.current ?? WIDE) < NARROW}
  <main class="grid gap-4 p-5">
    <h1 class="text-xl font-bold">{desk.view.name}</h1>
    <p>{tell('reference.the_desk_wants_a_wider')}</p>
    <p class="flex flex-wrap gap-2">
      {#if desk.view.revision > 0}
        <a class="btn" href="#/card/{params.id}/{desk.view.revision}">{tell('reference.the_card')}</a>
      {/if}
      <a class="btn" href="#/whole/{params.id}">{tell('reference.the_whole_lap')}</a>
      <a class="btn" href="#/walk/{desk.view.layoutId}">{tell('reference.track_walk')}</a>
    </p>
  </main>
{:else}
  {@const corner = desk.corner}
  {@const entry = desk.entry}
  <main class={fingers ? 'px-2 pb-3' : 'px-5 pb-3'}>
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
      <div class={['grid gap-5', fingers ? 'grid-cols-[minmax(0,1fr)]' : 'grid-cols-[minmax(0,1fr)_296px]']}>
        <section aria-label={tell('reference.corner', { number: corner.number })}>
          <div class="border-base-300 flex flex-wrap items-center gap-x-3 gap-y-1 border-t pt-1.5">
            <h1 class="text-xl font-bold">{corner.number}{corner.name ? ` · ${corner.name}` : ''}</h1>
            <p class={['text-sm', fingers ? 'order-last basis-full' : 'flex-1']}>
              {tell('reference.left_right_radius', {
                hasLeft: !!corner.left,
                angle: Math.round(degrees(corner.angle)),
                corner: radiusText(corner),
                replace: few(corner.kind),
              })}
            </p>
            {#if desk.variant}<span class="bg-base-300 rounded px-2 text-sm font-semibold" data-day
                >{desk.variant.name ||
                  (catalogue.all?.variants.find((k) => k.kind === desk?.variant?.kind)?.words ?? '')}</span
              >{/if}
            {#if driven.data?.laps && !desk.day}
              <button
                class={['btn btn-xs', behind ? 'btn-soft' : 'btn-ghost']}
                aria-pressed={behind}
                title={tell('reference.eight_of_ten_laps_lie', { run: driven.data.run })}
                data-laps-behind
                onclick={() => (behind = !behind)}>{tell('reference.with_laps', { laps: driven.data.laps })}</button
              >
            {/if}
            <span class="text-sm" role="status">
              {#if !desk.mine}{tell('reference.tried_not_kept_to_read', { hasTried: !!desk.tried })}{:else}{tell(
                  'reference.kept_keeping_no_connection_kept',
                  { isKept: desk.keeping === 'kept', isWaiting: desk.keeping === 'waiting' },
                )}{/if}
            </span>
            <div class="join">
              <button
                class="btn btn-sm btn-square join-item"
                aria-label={tell('reference.undo')}
                title={tell('reference.undo_2', { hasUndoes: !!desk.undoes, undoes: desk.undoes, undo: undefined })}
                data-undoes={desk.undoes}
                disabled={!desk.canUndo}
                onclick={() => desk?.undo()}><Undo2 class="size-4" /></button
              >
              <button
                class="btn btn-sm btn-square join-item"
                aria-label={tell('reference.redo')}
                title={tell('reference.redo_2', { hasRedoes: !!desk.redoes, redoes: desk.redoes, redo: undefined })}
                disabled={!desk.canRedo}
                onclick={() => desk?.redo()}><Redo2 class="size-4" /></button
              >
            </div>
            <div class="join">
              <button
                class="btn btn-sm btn-square join-item"
                aria-label={tell('reference.corner_before')}
                onclick={() => desk?.step(-1)}><ChevronLeft class="size-4" /></button
              >
              <button
                class="btn btn-sm btn-square join-item"
                aria-label={tell('reference.next_corner')}
                onclick={() => desk?.step(1)}><ChevronRight class="size-4" /></button
              >
            </div>
          </div>
          {#if desk.restored}
            <p class="text-sm">{tell('reference.what_you_edited_before_the')}</p>
          {/if}
          {#if desk.joined}
            <p class="text-sm" data-joined>{tell('reference.joined', { joined: desk.joined })}</p>
          {/if}
          {#if desk.mixed.length}
            <p class="text-sm font-bold" role="status" data-mixed>
              {tell('reference.mixed')}
              {#each desk.mixed as id (id)}
                <button class="btn btn-xs" onclick={() => void desk?.lookAt(id)}
                  >{desk.view.corners.find((c) => c.id === id)?.number}</button
                >
              {/each}
            </p>
          {/if}
          {#if desk.problem}<ProblemBox problem={desk.problem} />{/if}
          <div class={fingers ? 'overflow-x-auto' : ''} bind:this={window_}>
            <div style={opened && fingers ? `width:${OPENED * 100}%` : undefined}>
              <CornerStrip
                {fingers}
                road={desk.road}
                {corner}
                {entry}
                answer={desk.answer}
                landmarks={desk.landmarks}
                things={{ ...desk.view.things, landmarks: [] }}
                reach={desk.reach}
                doubts={desk.view.doubts.filter((d) => d.corner === corner.id).map((d) => d.kind)}
                grades={desk.grades[corner.id]}
                lap={desk.day ? undefined : desk.lap}
                {held}
                readonly={!desk.movable}
                before={desk.day ? (desk.base ?? null) : desk.showDraft ? (desk.drafted ?? null) : null}
                under={desk.day ? (desk.answers[desk.selected] ?? null) : null}
                driven={desk.day || !behind ? null : (driven.data ?? null)}
                onpedals={pedals}
                onpick={pick}
                kerbHeld={kerbed}
                onkerb={(use, i) => {
                  if (desk) takeKerb(desk.useKerb(use, i));
                }}
                onkerbsettle={() => desk?.settle()}
                onkerbhold={takeKerb}
                onkerbdrop={dropKerb}
                written
                fixed={!desk.writes}
                pointed={desk.pointed ?? desk.sight}
                cueThings={desk.cueThings}
                inHand={desk.inHand}
                typed={desk.typed}
                unwise={desk.unwise}
                pencil={desk.pencil}
                onmake={make}
                onaction={(a, moved) => desk?.putAction(a, moved, `drag ${a.id}`)}
                onactionsettle={() => desk?.settle()}
                onactionhold={(id) => {
                  desk?.takeInHand(id);
                  void openUp();
                }}
                onactionkey={actionKey}
                gates={desk.gates}
                wide={desk.view.width}
                ongate={desk.mine
                  ? (gate) => {
                      if (desk) desk.moving = gate;
                    }
                  : undefined}
                ongatesettle={() => void desk?.settleGate()}
                ongatedrop={(id) => void desk?.dropGate(id)}
                ongatehold={(id) => desk?.mine && desk.costGate(id)}
                gateCosts={desk.gateCosts}
                ongatemake={desk.mine ? (at, left, off) => desk?.makeGate(at, left, off) : undefined}
                height={desk.laid ? 436 : 472}
                onmove={(kind, to) => desk?.move(kind, to, `drag ${corner.id} ${kind}`)}
                onnudge={(kind, by) => desk?.nudge(kind, by)}
                onsettle={settled}
                laid={desk.laid?.view}
                onhold={(kind) => {
                  held = kind;
                  if (kind) void openUp();
                }}
                onlandmark={(landmark, to) => desk?.moveLandmark(landmark, to)}
              />
            </div>
          </div>
          {#if fingers}
            <div class="flex items-center gap-2">
              <div class="min-w-0 flex-1">
                {#if thumb}<ThumbRuler {...thumb} />{/if}
              </div>
              <button
                class="btn h-12"
                aria-pressed={opened}
                data-open-up
                onclick={() => void widen(!opened, (innerWidth.current ?? WIDE) / 2)}
                >{tell('reference.wider_whole', { opened })}</button
              >
            </div>
          {/if}
          {#if desk.laid}<LaidAnew {desk} laid={desk.laid.view} />{/if}
          {#if refused}<p class="text-sm" style="color:var(--turn)" role="alert">{refused}</p>{/if}
          {#if desk.held && desk.writes}
            <ActionBar bind:this={bar} {desk} {fingers} held={desk.held} />
          {:else if picked && entry.details[picked] !== undefined}
            <NoteBar {desk} {entry} detail={picked} onclose={() => (picked = null)} />
          {:else if kerbed !== null && entry.kerbs[kerbed]}
            {@const index = kerbed}
            <KerbBar {desk} {entry} {index} ondrop={() => dropKerb(index)} />
          {:else}
            <div
              class="bg-base-100 border-base-300 mt-1 flex min-h-[64px] gap-3 rounded border px-4 py-2"
              aria-live="polite"
            >
              <div class={['grid flex-1 content-start', !fingers && 'max-h-[76px] overflow-y-auto']}>
                {#if rewording}
                  <textarea
                    class="textarea textarea-xs min-h-12 w-full leading-tight"
                    maxlength="500"
                    aria-label={tell('reference.own_words')}
                    data-own-words
                    placeholder={tell('reference.in_place_of_the_computed')}
                    disabled={!desk.movable}
                    value={entry.wording?.text ?? ''}
                    onchange={(e) => {
                      const text = e.currentTarget.value.trim();
                      const about = desk?.answer?.words.plain ?? '';
                      desk?.edit((old) => ({ ...old, wording: text ? { text, about } : undefined }));
                      rewording = false;
                    }}></textarea>
                {:else}
                  <p class="leading-snug" data-sentence>
                    {#if said === 'line' && desk.answer?.words.own}{desk.answer.words.own}{:else}{desk.answer?.words[
                        said
                      ] ?? ''}{/if}
                    {#if said === 'line' && desk.answer?.words.due}
                      <strong style="color:var(--turn)" data-wording-due
                        >{tell('reference.the_points_have_changed_since')}</strong
                      >
                    {/if}
                  </p>
                {/if}
              </div>
              {#if desk.movable && !desk.day}
                <button
                  class={['btn btn-xs self-start', rewording ? 'btn-soft' : 'btn-ghost']}
                  aria-pressed={rewording}
                  data-reword
                  title={tell('reference.say_it_in_your_own')}
                  onclick={() => (rewording = !rewording)}
                  ><Pencil class="size-3.5" /> {tell('reference.own_words_2')}</button
                >
              {/if}
              <div class="join join-vertical self-start" role="group" aria-label={tell('reference.how_much_is_said')}>
                {#each SAID as length (length)}
                  <button
                    class={['btn btn-xs join-item h-5 min-h-5', said === length ? 'btn-primary' : '']}
                    aria-pressed={said === length}
                    onclick={() => (said = length)}>{LENGTHS[length]}</button
                  >
                {/each}
              </div>
            </div>
          {/if}
        </section>
        <aside class={['border-base-300 flex flex-col gap-2', fingers ? 'border-t pt-2' : 'border-l pl-5']}>
          <div
            class="flex flex-wrap gap-x-1 border-b border-[var(--ink-soft)]"
            role="tablist"
            aria-label={tell('reference.about_this_corner')}
          >
            {#each SHEETS as t (t.id)}
              <button
                role="tab"
                aria-selected={sheet === t.id}
                class={['pb-0.5 text-xs', sheet === t.id ? 'border-b-2 border-[var(--ink)] font-bold' : '']}
                data-tab={t.id}
                onclick={() => (sheet = t.id)}
                >{t.word}{#if t.id === 'days' && desk.content.variants.length}<sup>{desk.content.variants.length}</sup
                  >{/if}</button
              >
            {/each}
          </div>
          <div
            class={[
              'grid content-start gap-2 overflow-x-hidden',
              fingers ? '' : '-mr-4 max-h-[476px] overflow-y-auto pr-1 [scrollbar-gutter:stable]',
            ]}
            role="tabpanel"
          >
            {#if desk.held && desk.writes}<ActionCosts {desk} held={desk.held} />{/if}
            {#if sheet === 'marker'}
              {#if desk.mine && pressing}<ReferenceNotes {desk} corner={corner.id} />{/if}
              <fieldset class="grid gap-2" disabled={!desk.movable}><BrakePanel {desk} {entry} /></fieldset>
              <div class="flex items-center gap-2">
                <PlanInset road={desk.road} {corner} {entry} answer={desk.answer} size={112} />
                <label class="flex flex-1 flex-col gap-0.5 self-stretch text-sm" for="note">
                  {tell('reference.note')}
                  <textarea
                    id="note"
                    class="textarea min-h-0 w-full flex-1 resize-none leading-tight"
                    maxlength="2000"
                    disabled={!desk.movable}
                    value={entry.note}
                    oninput={(e) => {
                      const note = e.currentTarget.value;
                      desk?.edit((old) => ({ ...old, note }), `note ${corner.id}`);
                    }}
                    onblur={() => desk?.settle()}></textarea>
                </label>
              </div>
              {#if desk.mine && !pressing}<ReferenceNotes {desk} corner={corner.id} />{/if}
            {:else if sheet === 'ways'}
              <WaysPanel {desk} />
            {:else if sheet === 'gears'}
              <GearPanel {desk} {entry} />
            {:else if sheet === 'axles'}
              <BalancePanel {desk} {entry} />
            {:else if sheet === 'edges'}
              <EdgesPanel {desk} {corner} />
            {:else if sheet === 'facts'}
              <FactsPanel {desk} {entry} onnote={pick} onkerb={takeKerb} />
            {:else if sheet === 'days'}
              <DaysPanel {desk} />
            {:else if sheet === 'pace'}
              <PacePanel {desk} />
            {:else}
              <RemarksPanel {desk} />
            {/if}
          </div>
          <p class="text-xs leading-tight">
            {tell('reference.computed_with_the_vehicle_s', { hasDay: !!desk.day })}
          </p>
          <div class="mt-auto flex items-center justify-end gap-2">
            {#if time !== null}<span
                class="mr-auto text-xs leading-tight"
                title={tell('reference.the_computed_lap_and_what')}
                >{tell('reference.lap', {
                  lapTime: lapTime(desk.dayView?.lapTime ?? desk.lap.lapTime),
                  time: signed(time, 2),
                })}</span
              >{/if}
            <details class="dropdown dropdown-top dropdown-end">
              <summary class="btn btn-sm">{tell('reference.file')}</summary>
              <ul class="menu dropdown-content bg-base-100 border-base-300 z-10 mb-1 w-56 rounded border">
                <li><a href="#/whole/{desk.view.id}">{tell('reference.the_whole_lap_in_one')}</a></li>
                <li><a href="#/card/{desk.view.id}/0">{tell('reference.print_the_card')}</a></li>
                <li>
                  <a href="/api/references/{desk.view.id}/export.json" download>{tell('reference.save_as_json')}</a>
                </li>
                <li>
                  <a href="/api/references/{desk.view.id}/export.csv" download
                    >{tell('reference.save_corners_as_csv')}</a
                  >
                </li>
                <li>
                  <a href="/api/references/{desk.view.id}/export.csv?rows=ACTIONS" download
                    >{tell('reference.save_actions_as_csv')}</a
                  >
                </li>
                {#if desk.mine}
                  <li><a href="#/recompute/{desk.view.id}?again">{tell('reference.compute_it_anew')}</a></li>
                  <li><button onclick={() => (copying = true)}>{tell('reference.copy_to_another_vehicle')}</button></li>
                  <li>
                    <label>
                      {tell('reference.bring_json_or_csv')}
                      <input
                        type="file"
                        class="sr-only"
                        data-bring
                        accept=".json,.csv"
                        onchange={(e) => bring(e.currentTarget.files)}
                      />
                    </label>
                  </li>
                  <li>
                    <button onclick={() => desk?.replace({ ...desk.content, corners: desk.view.draft.corners })}
                      >{tell('reference.take_the_computed_draft')}</button
                    >
                  </li>
                {/if}
              </ul>
            </details>
            {#if desk.mine}<button class="btn btn-primary btn-sm" onclick={openSave}
                >{tell('reference.save_revision')}</button
              >{/if}
          </div>
        </aside>
      </div>
    {/if}
  </main>

  <dialog bind:this={saving} class="modal" aria-labelledby="save-title">
    <form class="modal-box grid gap-3" onsubmit={save}>
      <h2 id="save-title" class="text-lg font-bold">{tell('reference.save_a_revision')}</h2>
      <p>
        {desk.changes.length === 0
          ? tell('reference.the_draft_as_it_was', { noRevision: desk.view.revision === 0 })
          : tell('reference.changed', {
              number: desk.changes.map((c) => desk?.view.corners.find((k) => k.id === c)?.number).join(', '),
            })}
      </p>
      <label class="grid gap-1">
        {tell('reference.why')}
        <textarea
          class="textarea w-full"
          bind:value={reason}
          required
          maxlength="500"
          placeholder={tell('reference.what_you_learned_and_where')}></textarea>
      </label>
      {#if saveProblem}<ProblemBox problem={saveProblem} />{/if}
      <div class="modal-action">
        <button type="button" class="btn" onclick={() => saving?.close()}>{tell('reference.not_now')}</button>
        <button class="btn btn-primary" disabled={busy || reason.trim() === ''}>{tell('reference.save')}</button>
      </div>
    </form>
  </dialog>
  {#if copying}<CopyDialog {desk} onclose={() => (copying = false)} />{/if}
  {#if desk.conflict}<ConflictDialog {desk} conflict={desk.conflict} />{/if}
{/if}

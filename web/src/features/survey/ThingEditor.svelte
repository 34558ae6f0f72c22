<script lang="ts">
  import ZoneAmount from './ZoneAmount.svelte';
  import ZoneEffect from './ZoneEffect.svelte';
  import type { Corner, Judgement, Kerb, KerbClearance, Landmark, Place, TrackLimit, Zone } from '../../api/api';
  import type { SurveyDesk } from './survey.svelte';
  import {
    BEHIND,
    DOES,
    LANDMARKS,
    LIMIT_LINES,
    nameOf,
    PERMANENCE,
    PLACES,
    PROFILES,
    VERDICTS,
    ZONES,
    type Sort,
    type Thing,
  } from '../../road/things';
  import { fromLength, inLength, lengthUnit, metres } from '../../words/units';
  import { cornerWord } from '../../words/words';
  import { tell } from '../../words/tell';

  interface Props {
    desk: SurveyDesk;
    sort: Sort;
    thing: Thing;
    clearance?: KerbClearance;
    judgement?: Judgement;
    zone: string;
    /** Id of a reference on this layout, to see what a zone costs it. */
    reference?: string;
    onremove: () => void;
  }
  let { desk, sort, thing, clearance, judgement, zone, reference, onremove }: Props = $props();

  const landmark = $derived(sort === 'landmarks' ? (thing as Landmark) : null);
  const kerb = $derived(sort === 'kerbs' ? (thing as Kerb) : null);
  /** Surveys kept on a phone from before say nothing of it. */
  const ridden = $derived(kerb?.does ?? []);
  const area = $derived(sort === 'zones' ? (thing as Zone) : null);
  const limit = $derived(sort === 'limits' ? (thing as TrackLimit) : null);
  const place = $derived(sort === 'places' ? (thing as Place) : null);
  const corners = $derived<Corner[]>(desk.corners);

  function edit(change: Record<string, unknown>, key: string) {
    // An amount is in the unit of its kind, and a level falls to one side.
    if (key === 'kind' && area) change = { ...change, amount: undefined, across: undefined, dries: undefined };
    if ((change.kind === 'LEVEL' || change.kind === 'BEYOND') && area?.side === 'BOTH')
      change = { ...change, side: 'LEFT' };
    // What only ground beyond the edge has does not go with it to another kind, nor a width.
    if (change.kind && (change.kind === 'BEYOND') !== (area?.kind === 'BEYOND'))
      change = { ...change, beyond: undefined, amount: undefined };
    desk.put(sort, [{ ...thing, ...change } as Thing], `${thing.id} ${key}`);
  }
  const shown = (m: number) => Math.round(inLength(m) * 10) / 10;
  function photo(files: FileList | null) {
    const file = files?.[0];
    if (file) edit({ photo: desk.addPhoto(file) }, 'photo');
  }
  /** The hour at which a shadow was noted, on the circuit's clock. */
  const noted = $derived(
    landmark?.noted
      ? new Date(landmark.noted).toLocaleString('sv-SE', { timeZone: zone }).slice(0, 16).replace(' ', 'T')
      : '',
  );
  function note(text: string) {
    if (!text) return;
    // The offset of the circuit's zone at that hour, found by asking for the same instant's clock.
    const guess = new Date(`${text}:00Z`);
    const there = new Date(`${guess.toLocaleString('sv-SE', { timeZone: zone }).replace(' ', 'T')}Z`);
    edit({ noted: new Date(guess.getTime() - (there.getTime() - guess.getTime())).toISOString() }, 'noted');
  }
  const VERBS: Record<Judgement['grade'], string> = {
    SOLID: tell('thingEditor.solid'),
    USABLE: tell('thingEditor.usable'),
    WEAK: tell('thingEditor.weak'),
    NOT_TO_BE_RELIED_ON: tell('thingEditor.not_to_be_relied_on'),
  };
</script>

{#snippet number(label: string, key: string, value: number, step: number, unit: string, scale = 1)}
  <label class="grid gap-0.5 text-sm">
    {label}
    <span class="flex items-center gap-1">
      <input
        class="input input-sm w-20 text-right"
        type="number"
        {step}
        name={key}
        value={Math.round(value * scale * 100) / 100}
        onchange={(e) => {
          const v = e.currentTarget.valueAsNumber;
          if (Number.isFinite(v)) edit({ [key]: v / scale }, key);
        }}
      />
      {unit}
    </span>
  </label>
{/snippet}

{#snippet at(label: string, key: string, value: number)}
  <label class="grid gap-0.5 text-sm">
    {label}
    <span class="flex items-center gap-1">
      <input
        class="input input-sm w-24 text-right"
        type="number"
        step="0.5"
        name={key}
        value={shown(value)}
        onchange={(e) => {
          const v = e.currentTarget.valueAsNumber;
          if (Number.isFinite(v)) edit({ [key]: fromLength(v) }, key);
        }}
      />
      {lengthUnit()}
    </span>
  </label>
{/snippet}

{#snippet choice(label: string, key: string, value: string, words: Record<string, string>)}
  <label class="grid gap-0.5 text-sm">
    {label}
    <select class="select select-sm" name={key} {value} onchange={(e) => edit({ [key]: e.currentTarget.value }, key)}>
      {#each Object.entries(words) as [v, word] (v)}<option value={v}>{word}</option>{/each}
    </select>
  </label>
{/snippet}

{#snippet side(left: boolean)}
  <fieldset class="grid gap-0.5 text-sm">
    <legend class="mb-0.5">{tell('thingEditor.side')}</legend>
    <div class="join">
      {#each [true, false] as v (v)}
        <button
          type="button"
          class={['btn btn-sm join-item', v === left ? 'btn-primary' : '']}
          aria-pressed={v === left}
          onclick={() => edit({ left: v }, 'left')}>{tell('thingEditor.left_right', { hasV: !!v })}</button
        >
      {/each}
    </div>
  </fieldset>
{/snippet}

{#snippet words(label: string, key: string, value: string)}
  <label class="grid min-w-40 flex-1 gap-0.5 text-sm">
    {label}
    <input
      class="input input-sm w-full"
      name={key}
      {value}
      maxlength="1000"
      onchange={(e) => edit({ [key]: e.currentTarget.value }, key)}
    />
  </label>
{/snippet}

{#snippet ofCorner(corner: string)}
  <label class="grid gap-0.5 text-sm">
    {tell('thingEditor.corner')}
    <select
      class="select select-sm w-24"
      name="corner"
      value={corner}
      onchange={(e) => edit({ corner: e.currentTarget.value }, 'corner')}
    >
      {#if sort !== 'limits'}<option value="">{tell('thingEditor.none')}</option>{/if}
      {#each corners as c (c.id)}<option value={c.id}>{cornerWord(c)}</option>{/each}
    </select>
  </label>
{/snippet}

{#snippet picture(id: string)}
  <label class="btn btn-sm">
    {tell('thingEditor.another_picture_picture', { hasId: !!id })}
    <input type="file" accept="image/*" class="sr-only" onchange={(e) => photo(e.currentTarget.files)} />
  </label>
  {#if id}
    <a href="/api/photos/{id}" target="_blank" rel="noopener" class="block">
      <img src="/api/photos/{id}" alt={tell('thingEditor.the_thing_as_seen_on')} class="h-14 rounded" />
    </a>
    <button type="button" class="btn btn-sm" onclick={() => edit({ photo: '' }, 'photo')}
      >{tell('thingEditor.take_the_picture_off')}</button
    >
  {/if}
{/snippet}

<section class="grid content-start gap-2" aria-label={tell('thingEditor.the_thing_selected')} data-editor={sort}>
  <div class="flex items-center gap-3">
    <h2 class="flex-1 text-lg font-bold first-letter:uppercase">{nameOf(sort, thing)}</h2>
    <button type="button" class="btn btn-sm" onclick={onremove}>{tell('thingEditor.remove')}</button>
  </div>
  {#if area}<ZoneEffect zone={area} severities={desk.things.severities} {reference} />{/if}
  <div class="flex flex-wrap items-end gap-x-3 gap-y-2">
    {#if landmark}
      {#key landmark.id}
        <label class="grid gap-0.5 text-sm">
          {tell('thingEditor.reads_its_place_called', {
            isBoard: landmark.kind === 'BOARD',
            hasReadable: !!landmark.readable,
          })}
          <!-- svelte-ignore a11y_autofocus -->
          <input
            class="input input-sm w-32"
            name="label"
            autofocus
            value={landmark.label}
            maxlength="60"
            onfocus={(e) => e.currentTarget.select()}
            onchange={(e) => edit({ label: e.currentTarget.value }, 'label')}
            onkeydown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
          />
        </label>
      {/key}
      {@render choice(
        'Kind',
        'kind',
        landmark.kind,
        Object.fromEntries(Object.entries(LANDMARKS).map(([k, v]) => [k, v.word])),
      )}
      {@render side(landmark.left)}
      {@render at('Station', 'station', landmark.station)}
      {@render number(tell('thingEditor.out_from_the_edge'), 'out', landmark.out, 0.5, 'm')}
      {@render number(
        landmark.kind === 'SHADOW' ? tell('thingEditor.what_throws_it_high') : tell('thingEditor.height'),
        'height',
        landmark.height,
        0.1,
        'm',
      )}
      {@render number('Long', 'length', landmark.length, 1, 'm')}
      {@render choice('Lasts', 'permanence', landmark.permanence, PERMANENCE)}
      {@render ofCorner(landmark.corner)}
      {#if landmark.kind === 'BOARD'}
        <label class="flex items-center gap-1 text-sm">
          <input
            type="checkbox"
            class="checkbox checkbox-sm"
            checked={!landmark.readable}
            onchange={(e) => edit({ readable: !e.currentTarget.checked }, 'readable')}
          />
          {tell('thingEditor.cannot_be_read')}
        </label>
      {/if}
      {#if landmark.kind === 'SHADOW'}
        <label class="grid gap-0.5 text-sm">
          {tell('thingEditor.seen_there_at')}
          <input
            class="input input-sm"
            type="datetime-local"
            value={noted}
            onchange={(e) => note(e.currentTarget.value)}
          />
        </label>
      {/if}
      {#if landmark.seen}
        <p class="text-sm" data-seen>
          {landmark.seen.comes == null
            ? ''
            : tell('thingEditor.seen_to_come_into_view', { comes: metres(landmark.seen.comes) })}{landmark.seen
            .leaves == null
            ? ''
            : tell('thingEditor.seen_to_leave_it_at', { leaves: metres(landmark.seen.leaves) })}
          <button class="btn btn-xs" onclick={() => edit({ seen: undefined }, 'seen')}
            >{tell('thingEditor.forget_where_it_was_seen')}</button
          >
        </p>
      {/if}
      {@render words('Note', 'note', landmark.note)}
      {@render picture(landmark.photo)}
    {:else if kerb}
      {@render choice('Profile', 'profile', kerb.profile, PROFILES)}
      {@render side(kerb.left)}
      {@render choice('Where', 'part', kerb.part, {
        ENTRY: tell('thingEditor.entry'),
        APEX: tell('thingEditor.apex'),
        EXIT: tell('thingEditor.exit'),
      })}
      {@render at('From', 'from', kerb.from)}
      {@render at('To', 'to', kerb.to)}
      {@render number(tell('thingEditor.width'), 'width', kerb.width, 5, 'cm', 100)}
      {@render number('Height', 'height', kerb.height, 1, 'cm', 100)}
      {@render choice(tell('thingEditor.behind_it'), 'behind', kerb.behind, BEHIND)}
      {@render choice('Verdict', 'verdict', kerb.verdict, VERDICTS)}
      {@render ofCorner(kerb.corner)}
      <label class="flex items-center gap-1 text-sm">
        <input
          type="checkbox"
          class="checkbox checkbox-sm"
          checked={kerb.slippery}
          onchange={(e) => edit({ slippery: e.currentTarget.checked }, 'slippery')}
        />
        {tell('thingEditor.slippery_when_damp')}
      </label>
      <label class="grid gap-0.5 text-sm">
        {tell('thingEditor.its_front_bites_for')}
        <span class="flex items-center gap-1">
          <input
            class="input input-sm w-20 text-right"
            type="number"
            step="1"
            min="0"
            name="bites"
            placeholder="0"
            value={kerb.bites == null ? '' : shown(kerb.bites)}
            onchange={(e) => {
              const v = e.currentTarget.valueAsNumber;
              edit({ bites: Number.isFinite(v) && v > 0 ? fromLength(v) : undefined }, 'bites');
            }}
          />
          {lengthUnit()}
        </span>
      </label>
      <fieldset class="grid gap-0.5 text-sm">
        <legend class="mb-0.5">{tell('thingEditor.ridden_it')}</legend>
        <div class="join">
          {#each Object.entries(DOES) as [does, word] (does)}
            {@const on = ridden.includes(does as Kerb['does'][number])}
            <button
              type="button"
              class={['btn btn-sm join-item', on ? 'btn-primary' : '']}
              aria-pressed={on}
              data-does={does}
              onclick={() => edit({ does: on ? ridden.filter((d) => d !== does) : [...ridden, does] }, `does ${does}`)}
              >{word}</button
            >
          {/each}
        </div>
      </fieldset>
      {@render words('Note', 'note', kerb.note)}
      {@render picture(kerb.photo)}
    {:else if area}
      {@render choice(
        'Kind',
        'kind',
        area.kind,
        Object.fromEntries(Object.entries(ZONES).map(([k, v]) => [k, v.word])),
      )}
      {@render choice(
        area.kind === 'LEVEL'
          ? tell('thingEditor.lower_side')
          : area.kind === 'BEYOND'
            ? tell('thingEditor.side')
            : tell('thingEditor.across'),
        'side',
        area.side,
        area.kind === 'LEVEL' || area.kind === 'BEYOND'
          ? { LEFT: tell('thingEditor.left'), RIGHT: tell('thingEditor.right') }
          : {
              LEFT: tell('thingEditor.left_half'),
              BOTH: tell('thingEditor.whole_road'),
              RIGHT: tell('thingEditor.right_half'),
            },
      )}
      {@render at('From', 'from', area.from)}
      {@render at('To', 'to', area.to)}
      <ZoneAmount zone={area} {desk} onedit={edit} />
      {@render words('Note', 'note', area.note)}
      {@render picture(area.photo)}
    {:else if limit}
      {@render ofCorner(limit.corner)}
      {@render choice('Where', 'part', limit.part, {
        ENTRY: tell('thingEditor.entry'),
        APEX: tell('thingEditor.apex'),
        EXIT: tell('thingEditor.exit'),
      })}
      {@render side(limit.left)}
      {@render choice(tell('thingEditor.the_edge_is'), 'line', limit.line, LIMIT_LINES)}
      {@render number(tell('thingEditor.wheels_inside'), 'wheelsInside', limit.wheelsInside, 1, '')}
      {@render words(tell('thingEditor.belongs_to_the_track'), 'belongs', limit.belongs)}
      {@render words(tell('thingEditor.a_breach_costs'), 'cost', limit.cost)}
      <div class="flex items-center gap-2 text-sm">
        <button
          type="button"
          class="btn btn-sm"
          onclick={() =>
            edit({ breaches: [...limit.breaches, { on: new Date().toISOString().slice(0, 10), note: '' }] }, 'breach')}
          >{tell('thingEditor.count_a_breach_of_mine')}</button
        >
        <strong data-breaches>{limit.breaches.length}</strong>
        {#if limit.breaches.length}{tell('thingEditor.last_on', {
            on: limit.breaches[limit.breaches.length - 1]?.on,
          })}{/if}
      </div>
    {:else if place}
      {@render choice('For', 'kind', place.kind, PLACES)}
      {@render side(place.left)}
      {@render at('From', 'from', place.from)}
      {@render at('To', 'to', place.to)}
      {@render words(tell('thingEditor.number_or_name'), 'label', place.label)}
      {@render words('Note', 'note', place.note)}
    {/if}
  </div>
  {#if kerb && clearance}
    <p class="text-sm" aria-live="polite" data-clearance>
      {#if clearance.reach === null || clearance.reach === undefined}
        {tell('thingEditor.the_floor_clears_it_wherever', {
          gap: Math.round(clearance.gap * 100),
          wheelRise: Math.round(clearance.wheelRise * 100),
        })}
      {:else}
        {tell('thingEditor.the_tyre_may_go')} <strong>{Math.round(clearance.reach * 100)} cm</strong>
        {tell('thingEditor.past_the_edge_of_the', { wheelRise: Math.round(clearance.wheelRise * 100) })}
      {/if}
      {tell('thingEditor.standing_still_speed_and_bounce')}
    </p>
  {/if}
  {#if landmark && judgement}
    <p class="text-sm" aria-live="polite">
      <strong>{VERBS[judgement.grade]}</strong>{tell('thingEditor.of_100_to', {
        marks: judgement.marks,
        precision: metres(judgement.precision, 1),
        words: judgement.reasons.map((r) => r.words).join('; '),
      })}
    </p>
  {/if}
</section>

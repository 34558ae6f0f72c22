<script lang="ts">
  import { onMount } from 'svelte';
  import {
    api,
    ask,
    asProblem,
    type EffectView,
    type Problem,
    type Setting,
    type SettingDifference,
    type SetupParameter,
    type SetupSheet,
    type SheetView,
    type VehicleView,
  } from '../../api/api';
  import { here } from '../../kit/here.svelte';
  import { metres, plain, signed, speedText } from '../../words/units';
  import GripDrawing from './GripDrawing.svelte';
  import SheetLap from './SheetLap.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { tell } from '../../words/tell';

  let { params }: { params: { id: string } } = $props();
  // svelte-ignore state_referenced_locally
  const path = { path: { id: params.id } };

  let vehicle = $state.raw<VehicleView | null>(null);
  let parameters = $state.raw<SetupParameter[]>([]);
  let sheets = $state.raw<SheetView[]>([]);
  let next = $state<string | null>(null);
  let chosen = $state('');
  let sheet = $state.raw<SetupSheet | null>(null);
  let past: SetupSheet[] = $state.raw([]);
  let effect = $state.raw<EffectView | null>(null);
  let against = $state('');
  let differences = $state.raw<SettingDifference[]>([]);
  let problem = $state<Problem | null>(null);
  let dirty = $state(false);
  let own = $state('');
  let turn = 0;

  const PURPOSES: Record<SetupSheet['purpose'], string> = {
    DRY: tell('sheets.dry'),
    WET: tell('sheets.wet'),
    QUALIFYING: tell('sheets.qualifying'),
    RACE: tell('sheets.race'),
  };
  const EMPTY: SetupSheet = { name: tell('sheets.new_sheet'), purpose: 'DRY', settings: [], note: '' };
  const known = $derived(Object.fromEntries(parameters.map((p) => [p.id, p])));
  const groups = $derived([...new Set(parameters.map((p) => p.group))]);
  const label = (id: string) => known[id]?.label ?? id.replace(/^own:/, '');
  const unit = (s: Setting) => known[s.parameter]?.unit ?? s.unit;

  onMount(async () => {
    try {
      parameters = await ask(api.GET('/api/setup-parameters'));
      vehicle = await ask(api.GET('/api/vehicles/{id}', { params: path }));
      here.say(vehicle.name, tell('sheets.set_up_sheets'), null);
      take(await ask(api.GET('/api/vehicles/{id}/sheets', { params: path })));
      const first = sheets.find((s) => s.id === next) ?? sheets[0];
      if (first) open(first.id);
    } catch (e) {
      problem = asProblem(e);
    }
  });

  function take(view: { sheets: SheetView[]; next?: string }) {
    sheets = view.sheets;
    next = view.next ?? null;
  }
  function open(id: string) {
    chosen = id;
    past = [];
    dirty = false;
    differences = [];
    against = '';
    sheet = sheets.find((s) => s.id === id)?.sheet ?? null;
    void compute();
  }
  async function compute() {
    if (!sheet) return;
    const mine = ++turn;
    try {
      const e = await ask(api.POST('/api/vehicles/{id}/sheet-effect', { params: path, body: sheet }));
      if (mine === turn) effect = e;
    } catch (e) {
      if (mine === turn) problem = asProblem(e);
    }
  }
  function edit(change: Partial<SetupSheet>) {
    if (!sheet) return;
    past = [...past, sheet];
    sheet = { ...sheet, ...change };
    dirty = true;
    void compute();
  }
  function set(parameter: string, change: Partial<Setting>) {
    if (!sheet) return;
    edit({ settings: sheet.settings.map((s) => (s.parameter === parameter ? { ...s, ...change } : s)) });
  }
  function undo() {
    const back = past[past.length - 1];
    if (!back) return;
    past = past.slice(0, -1);
    sheet = back;
    void compute();
  }
  function usual(parameter: string): number | undefined {
    const v = vehicle?.numbers;
    if (!v) return undefined;
    const gear = /^gears\.(\d)$/.exec(parameter);
    if (gear) return v.gearbox.ratios[Number(gear[1]) - 1];
    const at: Record<string, number | undefined> = {
      'fuel.load': v.fuel?.load ?? 20,
      'mass.ballast': 0,
      'tyres.grip': 100,
      'wings.downforce': v.aero.clA,
      'wings.drag': v.aero.cdA,
      'brakes.bias': v.brakes.frontShare * 100,
      'gears.final': v.gearbox.finalDrive,
      'wings.front': (vehicle?.chassis.liftFront ?? 0.45) * 100,
      'wings.steps': 1,
      'roll.front': (vehicle?.chassis.rollFront ?? 0.5) * 100,
      'bar.steps': 1,
      'electronics.abs': 1,
      'electronics.traction': 1,
      'springs.front': 1,
      'springs.rear': 1,
      'cambers.front': 1,
      'cambers.rear': 1,
      'toe.front': 1,
      'toe.rear': 1,
      'floor.front': (v.floor?.rideHeight ?? 0.09) * 1000,
      'floor.rear': (v.floor?.rideHeight ?? 0.09) * 1000,
    };
    return at[parameter];
  }
  function add(parameter: string) {
    if (!sheet || !parameter) return;
    if (sheet.settings.some((s) => s.parameter === parameter)) return;
    edit({ settings: [...sheet.settings, { parameter, number: usual(parameter), words: '', unit: '', reason: '' }] });
  }
  async function make(from: SetupSheet) {
    try {
      const made = await ask(api.POST('/api/vehicles/{id}/sheets', { params: path, body: from }));
      take(await ask(api.GET('/api/vehicles/{id}/sheets', { params: path })));
      open(made.id);
      problem = null;
    } catch (e) {
      problem = asProblem(e);
    }
  }
  async function save() {
    const row = sheets.find((s) => s.id === chosen);
    if (!row || !sheet) return;
    try {
      const saved = await ask(
        api.PUT('/api/sheets/{id}', { params: { path: { id: chosen } }, body: { version: row.version, sheet } }),
      );
      sheets = sheets.map((s) => (s.id === chosen ? saved : s));
      dirty = false;
      problem = null;
    } catch (e) {
      problem = asProblem(e);
    }
  }
  async function remove() {
    try {
      await ask(api.DELETE('/api/sheets/{id}', { params: { path: { id: chosen } } }));
      take(await ask(api.GET('/api/vehicles/{id}/sheets', { params: path })));
      sheet = null;
      chosen = '';
      if (sheets[0]) open(sheets[0].id);
    } catch (e) {
      problem = asProblem(e);
    }
  }
  async function putOn(id: string | null) {
    try {
      take(await ask(api.PUT('/api/vehicles/{id}/next-sheet', { params: path, body: { sheet: id ?? undefined } })));
      problem = null;
    } catch (e) {
      problem = asProblem(e);
    }
  }
  async function compare(other: string) {
    against = other;
    differences = [];
    if (!other) return;
    try {
      differences = await ask(api.GET('/api/sheets/{id}/against/{other}', { params: { path: { id: chosen, other } } }));
    } catch (e) {
      problem = asProblem(e);
    }
  }
  const said = (s: Setting | undefined) =>
    s
      ? [s.number === undefined || s.number === null ? '' : `${Math.round(s.number * 100) / 100} ${unit(s)}`, s.words]
          .join(' ')
          .trim()
      : '—';
  const finding = (parameter: string) => effect?.problems.find((f) => f.field === parameter)?.message;
  const others = $derived(effect?.problems.filter((f) => !sheet?.settings.some((s) => s.parameter === f.field)) ?? []);
</script>

<main class="grid gap-3 p-5">
  {#if problem}<ProblemBox {problem} />{/if}
  {#if vehicle}
    <div class="flex flex-wrap items-center gap-2">
      <h1 class="mr-4 text-2xl font-bold">{vehicle.name}</h1>
      {#each sheets as s (s.id)}
        <button
          type="button"
          class={['btn btn-sm', s.id === chosen ? 'btn-primary' : '']}
          aria-pressed={s.id === chosen}
          onclick={() => open(s.id)}>{tell('sheets.on_it_next', { name: s.sheet.name, isId: s.id === next })}</button
        >
      {/each}
      <button type="button" class="btn btn-sm" onclick={() => make(EMPTY)}>{tell('sheets.new_sheet')}</button>
      {#if sheet}
        {@const now = sheet}
        <button
          type="button"
          class="btn btn-sm"
          onclick={() => make({ ...now, name: tell('sheets.copy', { name: now.name }).slice(0, 100) })}
          >{tell('sheets.copy_this_one')}</button
        >
      {/if}
      <span class="flex-1"></span>
      <a class="link text-sm" href="#/vehicle/{params.id}">{tell('sheets.the_vehicle')}</a>
    </div>
    {#if vehicle.numbers.fixedSetup}
      <p class="border-warning border-l-4 pl-2 text-sm" data-fixed>
        {tell('sheets.the_set_up_of_this')}
        <a class="link" href="#/vehicle/{params.id}">{tell('sheets.the_vehicle_2')}</a>{tell(
          'sheets.a_sheet_records_what_it',
        )}
      </p>
    {/if}
    {#if !sheet}
      <p>{tell('sheets.no_sheet_yet_a_sheet')}</p>
    {:else}
      <div class="grid grid-cols-[minmax(0,1fr)_460px] gap-6">
        <section class="grid content-start gap-2">
          <div class="flex flex-wrap items-end gap-2">
            <label class="grid gap-0.5 text-sm">
              {tell('sheets.name')}
              <input
                class="input input-sm w-52"
                name="sheet-name"
                maxlength="100"
                value={sheet.name}
                onchange={(e) => edit({ name: e.currentTarget.value })}
              />
            </label>
            <label class="grid gap-0.5 text-sm">
              {tell('sheets.for')}
              <select
                class="select select-sm"
                value={sheet.purpose}
                onchange={(e) => edit({ purpose: e.currentTarget.value as SetupSheet['purpose'] })}
              >
                {#each Object.entries(PURPOSES) as [k, word] (k)}<option value={k}>{word}</option>{/each}
              </select>
            </label>
            <button type="button" class="btn btn-sm" disabled={!past.length} onclick={undo}
              >{tell('sheets.undo')}</button
            >
            <button
              type="button"
              class="btn btn-sm btn-primary"
              disabled={!dirty || !!effect?.problems.length}
              onclick={save}>{tell('sheets.save_saved', { hasDirty: !!dirty })}</button
            >
            {#if chosen === next}
              <button type="button" class="btn btn-sm" onclick={() => putOn(null)}
                >{tell('sheets.take_off_for_the_next')}</button
              >
            {:else}
              <button type="button" class="btn btn-sm" onclick={() => putOn(chosen)}
                >{tell('sheets.put_on_for_the_next')}</button
              >
            {/if}
            <button type="button" class="btn btn-sm" onclick={remove}>{tell('sheets.remove')}</button>
          </div>
          <div class="max-h-[560px] overflow-y-auto pr-1">
            <table class="table-xs table" aria-label={tell('sheets.settings')}>
              <thead
                ><tr
                  ><th>{tell('sheets.what')}</th><th>{tell('sheets.set_to')}</th><th>{tell('sheets.why')}</th><td
                  ></td></tr
                ></thead
              >
              <tbody>
                {#each sheet.settings as s (s.parameter)}
                  {@const p = known[s.parameter]}
                  {@const wrong = finding(s.parameter)}
                  <tr data-setting={s.parameter}>
                    <th scope="row" class="font-normal">
                      {label(s.parameter)}
                      {#if p?.understood}<span
                          title={tell('sheets.the_computation_uses_it')}
                          role="img"
                          aria-label={tell('sheets.used_by_the_computation')}>◆</span
                        >{/if}
                    </th>
                    <td>
                      <span class="flex items-center gap-1">
                        <input
                          class={['input input-xs w-20 text-right', wrong ? 'input-error' : '']}
                          type="number"
                          step={p?.step ?? tell('sheets.any')}
                          aria-label={tell('sheets.number', { parameter: label(s.parameter) })}
                          value={s.number ?? ''}
                          onchange={(e) => {
                            const v = e.currentTarget.valueAsNumber;
                            set(s.parameter, { number: Number.isFinite(v) ? v : undefined });
                          }}
                        />
                        {#if p}{p.unit}{:else}
                          <input
                            class="input input-xs w-12"
                            aria-label={tell('sheets.unit')}
                            maxlength="20"
                            value={s.unit}
                            onchange={(e) => set(s.parameter, { unit: e.currentTarget.value })}
                          />
                        {/if}
                        {#if !p?.understood}
                          <input
                            class="input input-xs w-24"
                            aria-label={tell('sheets.in_words', { parameter: label(s.parameter) })}
                            maxlength="200"
                            value={s.words}
                            onchange={(e) => set(s.parameter, { words: e.currentTarget.value })}
                          />
                        {/if}
                      </span>
                      {#if wrong}<span class="text-error block text-sm">{wrong}</span>{/if}
                    </td>
                    <td>
                      <input
                        class="input input-xs w-full"
                        aria-label={tell('sheets.why_is_so', { parameter: label(s.parameter) })}
                        maxlength="500"
                        value={s.reason}
                        onchange={(e) => set(s.parameter, { reason: e.currentTarget.value })}
                      />
                    </td>
                    <td>
                      <button
                        type="button"
                        class="btn btn-xs"
                        aria-label={tell('sheets.take_off_the_sheet', { parameter: label(s.parameter) })}
                        onclick={() => edit({ settings: sheet?.settings.filter((k) => k !== s) ?? [] })}>×</button
                      >
                    </td>
                  </tr>
                {/each}
              </tbody>
            </table>
            <label class="mt-2 flex items-center gap-2 text-sm">
              {tell('sheets.put_on_the_sheet')}
              <select
                class="select select-sm w-60"
                name="add-setting"
                value=""
                onchange={(e) => {
                  add(e.currentTarget.value);
                  e.currentTarget.value = '';
                }}
              >
                <option value="">{tell('sheets.choose')}</option>
                {#each groups as g (g)}
                  <optgroup label={g}>
                    {#each parameters.filter((p) => p.group === g && !sheet?.settings.some((s) => s.parameter === p.id)) as p (p.id)}
                      <option value={p.id}>{p.label}{p.understood ? ' ◆' : ''}</option>
                    {/each}
                  </optgroup>
                {/each}
              </select>
              {tell('sheets.is_used_by_the_computation')}
            </label>
            <form
              class="mt-2 flex items-center gap-2 text-sm"
              onsubmit={(e) => {
                e.preventDefault();
                if (own.trim()) add(`own:${own.trim()}`);
                own = '';
              }}
            >
              <label class="flex items-center gap-2">
                {tell('sheets.something_of_my_own')}
                <input class="input input-sm w-48" name="own-setting" maxlength="50" bind:value={own} />
              </label>
              <button class="btn btn-sm" disabled={!own.trim()}>{tell('sheets.put_on')}</button>
            </form>
          </div>
        </section>
        <section class="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-3" aria-live="polite">
          {#if effect?.with}
            {@const a = effect.without}
            {@const b = effect.with}
            <table class="table-sm table" aria-label={tell('sheets.what_the_sheet_leads_to')} data-effect>
              <thead
                ><tr><td></td><th>{tell('sheets.in_the_garage')}</th><th>{tell('sheets.with_this_sheet')}</th></tr
                ></thead
              >
              <tbody>
                <tr
                  ><th scope="row">{tell('sheets.top_speed')}</th><td>{speedText(a.topSpeed)}</td><td
                    >{speedText(b.topSpeed)}</td
                  ></tr
                >
                <tr>
                  <th scope="row">{tell('sheets.100_to_0_km_h')}</th><td>{metres(a.stopDistance, 1)}</td>
                  <td>{metres(b.stopDistance, 1)} ({signed(b.stopDistance - a.stopDistance, 1)})</td>
                </tr>
                <tr>
                  <th scope="row">{tell('sheets.0_to_100_km_h')}</th><td>{plain(a.toHundred, 2)} s</td>
                  <td>{plain(b.toHundred, 2)} s ({signed(b.toHundred - a.toHundred, 2)})</td>
                </tr>
                <tr>
                  <th scope="row">{tell('sheets.mass')}</th><td>{plain(vehicle.numbers.mass)} kg</td>
                  <td>{plain(effect.vehicle?.mass ?? 0)} kg</td>
                </tr>
              </tbody>
            </table>
            <SheetLap
              fixed={vehicle.numbers.fixedSetup ?? false}
              vehicle={params.id}
              {sheet}
              onfinal={(ratio) =>
                sheet?.settings.some((s) => s.parameter === 'gears.final')
                  ? set('gears.final', { number: ratio })
                  : edit({
                      settings: [
                        ...(sheet?.settings ?? []),
                        {
                          parameter: 'gears.final',
                          number: ratio,
                          words: '',
                          unit: '',
                          reason: tell('sheets.the_longest_straight'),
                        },
                      ],
                    })}
            />
            <GripDrawing figures={b} />
          {/if}
          {#each others as f (f.field)}<p class="text-error text-sm">{f.message}</p>{/each}
          {#if sheets.length > 1}
            <label class="flex items-center gap-2 text-sm">
              {tell('sheets.compare_with')}
              <select
                class="select select-sm"
                name="compare"
                value={against}
                onchange={(e) => compare(e.currentTarget.value)}
              >
                <option value="">{tell('sheets.nothing')}</option>
                {#each sheets.filter((s) => s.id !== chosen) as s (s.id)}<option value={s.id}>{s.sheet.name}</option
                  >{/each}
              </select>
            </label>
            {#if against}
              {#if dirty}<p class="text-sm">{tell('sheets.as_saved_what_is_not')}</p>{/if}
              <table class="table-xs table" aria-label={tell('sheets.what_differs')}>
                <tbody>
                  {#each differences as d (d.parameter)}
                    <tr><th scope="row">{label(d.parameter)}</th><td>{said(d.first)}</td><td>{said(d.second)}</td></tr>
                  {:else}<tr><td>{tell('sheets.no_difference')}</td></tr>{/each}
                </tbody>
              </table>
            {/if}
          {/if}
        </section>
      </div>
    {/if}
  {:else if !problem}<p role="status">{tell('sheets.opening')}</p>{/if}
</main>

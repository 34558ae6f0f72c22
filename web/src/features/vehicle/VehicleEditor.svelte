<script lang="ts">
  import { onMount } from 'svelte';
  import { push } from 'svelte-spa-router';
  import { api, ask, asProblem, type Problem, type Vehicle, type VehicleFigures } from '../../api/api';
  import { here } from '../../kit/here.svelte';
  import { History } from '../../kit/history';
  import { typing } from '../../kit/keys';
  import { metres, plain, speedText } from '../../words/units';
  import { complete, toKeep, getField, groupsOf, withField } from './vehicleFields';
  import GearDrawing from './GearDrawing.svelte';
  import GripDrawing from './GripDrawing.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { tell } from '../../words/tell';

  let { params }: { params: { id: string } } = $props();

  let vehicle = $state.raw<Vehicle | null>(null);
  let name = $state('');
  /** The usual chassis, where none was entered. */
  let usual: Vehicle['chassis'];
  let version = 0;
  let figures = $state.raw<VehicleFigures | null>(null);
  let findings = $state.raw<{ field: string; message: string }[]>([]);
  let problem = $state<Problem | null>(null);
  let dirty = $state(false);
  let steps = $state(0);
  const history = new History<Vehicle>();
  let turn = 0;

  onMount(async () => {
    try {
      const view = await ask(api.GET('/api/vehicles/{id}', { params: { path: { id: params.id } } }));
      usual = view.numbers.chassis ? undefined : view.chassis;
      vehicle = complete(view.numbers, view.chassis);
      name = view.name;
      version = view.version;
      here.say(view.name, tell('vehicleEditor.from', { replaceAll: view.basedOn.replaceAll('-', ' ') }), null);
      const kept = sessionStorage.getItem(`marvek.vehicle.${params.id}.${version}`);
      if (kept) {
        history.remember(vehicle);
        vehicle = JSON.parse(kept) as Vehicle;
        dirty = true;
        steps++;
      }
      await compute();
    } catch (e) {
      problem = asProblem(e);
    }
  });

  async function compute() {
    if (!vehicle) return;
    const mine = ++turn;
    try {
      const view = await ask(api.POST('/api/vehicles/figures', { body: toKeep(vehicle, usual) }));
      if (mine !== turn) return;
      findings = view.problems;
      figures = view.figures ?? figures;
      problem = null;
    } catch (e) {
      if (mine === turn) problem = asProblem(e);
    }
  }

  function edit(change: (v: Vehicle) => Vehicle, key: string) {
    if (!vehicle) return;
    history.remember(vehicle, key);
    travel(change(vehicle));
  }

  function travel(to: Vehicle | null) {
    if (!to) return;
    vehicle = to;
    dirty = true;
    steps++;
    sessionStorage.setItem(`marvek.vehicle.${params.id}.${version}`, JSON.stringify(to));
    void compute();
  }

  function onkeydown(event: KeyboardEvent) {
    if (!vehicle || typing(event) || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
    event.preventDefault();
    travel(event.shiftKey ? history.redo(vehicle) : history.undo(vehicle));
  }

  async function save(event: SubmitEvent) {
    event.preventDefault();
    if (!vehicle) return;
    try {
      const view = await ask(
        api.PUT('/api/vehicles/{id}', {
          params: { path: { id: params.id } },
          body: { version, name, numbers: toKeep(vehicle, usual) },
        }),
      );
      sessionStorage.removeItem(`marvek.vehicle.${params.id}.${version}`);
      version = view.version;
      dirty = false;
      problem = null;
    } catch (e) {
      problem = asProblem(e);
    }
  }

  const round = (x: number) => Math.round(x * 10000) / 10000;
  const finding = (field: string) => findings.find((x) => x.field === field)?.message;
</script>

<svelte:window {onkeydown} />

<main class="p-5">
  {#if problem}<div class="mb-3"><ProblemBox {problem} /></div>{/if}
  {#if vehicle}
    {@const v = vehicle}
    <form class="grid grid-cols-[minmax(0,1fr)_560px] gap-6" onsubmit={save} novalidate>
      <section class="grid content-start gap-2" aria-live="polite">
        {#if figures}
          <dl class="flex gap-8" data-figures={steps}>
            <div>
              <dt class="text-sm">{tell('vehicleEditor.top_speed')}</dt>
              <dd class="text-2xl font-bold" data-top>{speedText(figures.topSpeed)}</dd>
            </div>
            <div>
              <dt class="text-sm">{tell('vehicleEditor.100_to_0_km_h')}</dt>
              <dd class="text-2xl font-bold" data-stop>{metres(figures.stopDistance, 1)}</dd>
            </div>
            <div>
              <dt class="text-sm">{tell('vehicleEditor.0_to_100_km_h')}</dt>
              <dd class="text-2xl font-bold">{plain(figures.toHundred, 1)} s</dd>
            </div>
          </dl>
          <GearDrawing vehicle={v} {figures} />
          <GripDrawing {figures} />
          <table class="table-xs table w-auto" aria-label={tell('vehicleEditor.speed_of_each_gear')}>
            <thead>
              <tr
                ><th>{tell('vehicleEditor.gear')}</th>{#each figures.gears as gear (gear.gear)}<th class="text-right"
                    >{gear.gear}</th
                  >{/each}</tr
              >
            </thead>
            <tbody>
              <tr>
                <th scope="row">{tell('vehicleEditor.at_the_shift')}</th>
                {#each figures.gears as gear (gear.gear)}<td class="text-right" data-gear-speed={gear.gear}
                    >{speedText(gear.atShift)}</td
                  >{/each}
              </tr>
              <tr>
                <th scope="row">{tell('vehicleEditor.safe_to_take_below')}</th>
                {#each figures.gears as gear (gear.gear)}<td class="text-right">{speedText(gear.safeDown)}</td>{/each}
              </tr>
            </tbody>
          </table>
        {/if}
      </section>
      <section class="grid content-start gap-3">
        <div class="flex items-end gap-2">
          <label class="grid flex-1 gap-1">
            {tell('vehicleEditor.name')}
            <input class="input w-full" bind:value={name} maxlength="100" required oninput={() => (dirty = true)} />
          </label>
          <div class="join">
            <button
              type="button"
              class="btn join-item"
              disabled={steps < 0 || !history.canUndo}
              onclick={() => vehicle && travel(history.undo(vehicle))}>{tell('vehicleEditor.undo')}</button
            >
            <button
              type="button"
              class="btn join-item"
              disabled={steps < 0 || !history.canRedo}
              onclick={() => vehicle && travel(history.redo(vehicle))}>{tell('vehicleEditor.redo')}</button
            >
          </div>
          <button class="btn btn-primary" disabled={!dirty || findings.length > 0}
            >{tell('vehicleEditor.save_saved', { hasDirty: !!dirty })}</button
          >
        </div>
        <div class="flex gap-6">
          {#each [['antiLock', tell('vehicleEditor.anti_lock_brakes')], ['traction', tell('vehicleEditor.traction_control')]] as const as [aid, word] (aid)}
            <label class="flex items-center gap-2 text-sm">
              <input
                type="checkbox"
                class="checkbox checkbox-sm"
                name="aids.{aid}"
                checked={v.aids?.[aid] ?? false}
                onchange={(e) => {
                  const on = e.currentTarget.checked;
                  const none = { antiLock: false, traction: false };
                  edit((old) => ({ ...old, aids: { ...none, ...old.aids, [aid]: on } }), `aids ${aid}`);
                  history.settle();
                }}
              />
              {word}
            </label>
          {/each}
        </div>
        <label class="flex items-center gap-2 text-sm">
          <input
            type="checkbox"
            class="checkbox checkbox-sm"
            name="fixedSetup"
            checked={v.fixedSetup ?? false}
            onchange={(e) => {
              const fixed = e.currentTarget.checked || undefined;
              edit((old) => ({ ...old, fixedSetup: fixed }), 'fixedSetup');
              history.settle();
            }}
          />
          {tell('vehicleEditor.its_set_up_is_not')}
        </label>
        <div class="grid max-h-[540px] grid-cols-2 gap-x-6 gap-y-3 overflow-y-auto pr-2">
          {#each groupsOf(v) as group (group.title)}
            <fieldset class="grid content-start gap-1">
              <legend class="mb-1 font-bold">{group.title}</legend>
              {#each group.fields as field (field.field)}
                <label class="flex items-center gap-2 text-sm">
                  <span class="flex-1">{field.label}</span>
                  <input
                    class={['input input-sm w-24 text-right', finding(field.field) ? 'input-error' : '']}
                    type="number"
                    step={field.step}
                    name={field.field}
                    value={round(getField(v, field.field) * field.scale)}
                    aria-invalid={!!finding(field.field)}
                    oninput={(e) => {
                      const x = e.currentTarget.valueAsNumber;
                      if (Number.isFinite(x)) edit((old) => withField(old, field.field, x / field.scale), field.field);
                    }}
                    onblur={() => history.settle()}
                  />
                  <span class="w-8">{field.unit}</span>
                </label>
                {#if finding(field.field)}<p class="text-error text-sm">{finding(field.field)}</p>{/if}
              {/each}
            </fieldset>
          {/each}
          <fieldset class="grid content-start gap-1">
            <legend class="mb-1 font-bold">{tell('vehicleEditor.gears')}</legend>
            {#each v.gearbox.ratios as ratio, i (i)}
              <label class="flex items-center gap-2 text-sm">
                <span class="flex-1">{i + 1}</span>
                <input
                  class="input input-sm w-24 text-right"
                  type="number"
                  step="0.01"
                  name="gear-{i + 1}"
                  value={ratio}
                  oninput={(e) => {
                    const x = e.currentTarget.valueAsNumber;
                    if (Number.isFinite(x))
                      edit(
                        (old) => ({
                          ...old,
                          gearbox: { ...old.gearbox, ratios: old.gearbox.ratios.map((r, k) => (k === i ? x : r)) },
                        }),
                        `gear ${i}`,
                      );
                  }}
                  onblur={() => history.settle()}
                />
                <span class="w-8">: 1</span>
              </label>
            {/each}
            {#if finding('gearbox.ratios')}<p class="text-error text-sm">{finding('gearbox.ratios')}</p>{/if}
          </fieldset>
        </div>
        <details>
          <summary class="cursor-pointer font-bold">{tell('vehicleEditor.torque_curve')}</summary>
          <div class="mt-1 grid grid-cols-5 gap-2">
            {#each v.engine.curve as point, i (i)}
              <label class="grid text-sm">
                {plain(point.revs)}
                <input
                  class="input input-sm w-full text-right"
                  type="number"
                  step="1"
                  aria-label={tell('vehicleEditor.torque_at_revs_nm', { revs: point.revs })}
                  value={point.torque}
                  oninput={(e) => {
                    const x = e.currentTarget.valueAsNumber;
                    if (Number.isFinite(x))
                      edit(
                        (old) => ({
                          ...old,
                          engine: {
                            ...old.engine,
                            curve: old.engine.curve.map((p, k) => (k === i ? { ...p, torque: x } : p)),
                          },
                        }),
                        `torque ${i}`,
                      );
                  }}
                  onblur={() => history.settle()}
                />
              </label>
            {/each}
          </div>
          {#if finding('engine.curve')}<p class="text-error text-sm">{finding('engine.curve')}</p>{/if}
        </details>
        <a class="link justify-self-start" href="#/sheets/{params.id}">{tell('vehicleEditor.set_up_sheets_of_this')}</a>
        <button type="button" class="btn btn-link justify-self-start px-0" onclick={() => push('/')}
          >{tell('vehicleEditor.back_to_the_paddock')}</button
        >
      </section>
    </form>
  {:else if !problem}
    <p role="status">{tell('vehicleEditor.opening')}</p>
  {/if}
</main>

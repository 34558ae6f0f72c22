<script lang="ts">
  import { onMount } from 'svelte';
  import { push } from 'svelte-spa-router';
  import { api, ask, asProblem, type PaddockView, type Problem, type SheetView, type Job } from '../../api/api';
  import type { Desk } from './desk.svelte';
  import { follow } from '../../api/jobs';
  import JobNote from '../../kit/JobNote.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { tell } from '../../words/tell';

  /** Copies the reference to another vehicle, set-up or layout version. */
  let { desk, onclose }: { desk: Desk; onclose: () => void } = $props();
  let dialog = $state<HTMLDialogElement>();
  let paddock = $state.raw<PaddockView | null>(null);
  let sheets = $state.raw<SheetView[]>([]);
  let vehicle = $state('');
  let layout = $state('');
  let sheet = $state('');
  let problem = $state.raw<Problem | null>(null);
  let busy = $state(false);
  let job = $state.raw<Job | null>(null);
  const layouts = $derived(
    (paddock?.layouts ?? []).filter((l) => l.circuit === desk.view.circuit && l.layout === desk.view.layout),
  );

  onMount(async () => {
    dialog?.showModal();
    try {
      paddock = await ask(api.GET('/api/paddock'));
      layout = desk.view.layoutId;
      vehicle = paddock.vehicles.find((v) => v.id !== desk.view.vehicleId)?.id ?? desk.view.vehicleId;
      await offer();
    } catch (e) {
      problem = asProblem(e);
    }
  });
  async function offer() {
    sheet = '';
    sheets = (await ask(api.GET('/api/vehicles/{id}/sheets', { params: { path: { id: vehicle } } }))).sheets;
  }
  async function copy(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    problem = null;
    try {
      await desk.ensureKept();
      const started = await ask(
        api.POST('/api/references/{id}/copies', {
          params: { path: { id: desk.view.id } },
          body: { layoutId: layout, vehicleId: vehicle, ...(sheet ? { sheetId: sheet } : {}) },
        }),
      );
      const made = await follow(started, (j) => (job = j));
      if (made === null) return;
      dialog?.close();
      await push(`/reference/${made}`);
    } catch (e) {
      problem = asProblem(e);
    } finally {
      busy = false;
      job = null;
    }
  }
</script>

<dialog bind:this={dialog} class="modal" aria-labelledby="copy-title" {onclose}>
  <form class="modal-box grid gap-3" onsubmit={copy}>
    <h2 id="copy-title" class="text-lg font-bold">{tell('copyDialog.copy_the_reference')}</h2>
    <p>
      {tell('copyDialog.each_point_goes_over_as')}
    </p>
    <label class="grid gap-1"
      >{tell('copyDialog.vehicle')}
      <select class="select w-full" bind:value={vehicle} onchange={offer}>
        {#each paddock?.vehicles ?? [] as v (v.id)}<option value={v.id}>{v.name}</option>{/each}
      </select></label
    >
    <label class="grid gap-1"
      >{tell('copyDialog.set_up_sheet')}
      <select class="select w-full" bind:value={sheet}>
        <option value="">{tell('copyDialog.no_sheet')}</option>
        {#each sheets as s (s.id)}<option value={s.id}>{s.sheet.name}</option>{/each}
      </select></label
    >
    <label class="grid gap-1"
      >{tell('copyDialog.layout_version')}
      <select class="select w-full" bind:value={layout}>
        {#each layouts as l (l.id)}<option value={l.id}>{l.circuit} {l.layout} v{l.version}</option>{/each}
      </select></label
    >
    {#if job}<JobNote {job} onproblem={(p) => (problem = p)} />{/if}
    {#if problem}<ProblemBox {problem} />{/if}
    <div class="modal-action">
      <button type="button" class="btn" onclick={() => dialog?.close()}>{tell('copyDialog.not_now')}</button>
      <button class="btn btn-primary" disabled={busy || !vehicle}>{tell('copyDialog.copy')}</button>
    </div>
  </form>
</dialog>

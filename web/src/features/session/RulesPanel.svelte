<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ask, type TrackSession } from '../../api/api';
  import NumberField from '../../kit/NumberField.svelte';
  import { plain } from '../../words/units';
  import { tell } from '../../words/tell';

  interface Props {
    session: string;
    version: number;
    draft: TrackSession;
    /** Whether the vehicle has a device whose zones can be said. */
    device: boolean;
    /** Where the survey has the pit entry, m. */
    surveyed?: number;
    put: (change: Partial<TrackSession>) => void;
    onselect: (corner: string) => void;
  }
  let { session, version, draft, device, surveyed, put, onselect }: Props = $props();
  const counted = $derived(!['UNKNOWN', 'FREE'].includes(draft.rules.limits));
  const rules = (more: Partial<TrackSession['rules']>) => put({ rules: { ...draft.rules, ...more } });
  const edges = createQuery(() => ({
    queryKey: ['session-limits', session, version],
    enabled: counted,
    queryFn: () => ask(api.GET('/api/sessions/{id}/limits', { params: { path: { id: session } } })),
    placeholderData: (before) => before,
  }));
  const most = $derived(Math.max(0.01, ...(edges.data?.corners ?? []).map((c) => c.seconds)));

  type Zone = TrackSession['rules']['device'][number];
  function zone(at: number, other: Zone | null) {
    const zones = [...draft.rules.device];
    zones.splice(at, 1, ...(other ? [other] : []));
    rules({ device: zones });
  }
</script>

<h3 class="mt-1 font-bold">{tell('rulesPanel.rules')}</h3>
<div class="grid grid-cols-2 gap-x-3 gap-y-1">
  <label class="flex items-center gap-1"
    ><span class="flex-1">{tell('rulesPanel.off_the_road')}</span><select
      class="select select-xs w-28"
      value={draft.rules.limits}
      onchange={(e) => rules({ limits: e.currentTarget.value as TrackSession['rules']['limits'] })}
      ><option value="UNKNOWN">{tell('rulesPanel.not_said')}</option><option value="FREE"
        >{tell('rulesPanel.free')}</option
      ><option value="LAP_DELETED">{tell('rulesPanel.lap_deleted')}</option><option value="WARNINGS"
        >{tell('rulesPanel.warnings')}</option
      ><option value="PENALTY">{tell('rulesPanel.penalty')}</option></select
    ></label
  >
  {#if counted}
    <NumberField
      label={tell('rulesPanel.warnings_before_it')}
      min={0}
      max={20}
      step={1}
      value={draft.rules.warnings}
      onset={(v) => rules({ warnings: v ?? 0 })}
    />
    <NumberField
      label={tell('rulesPanel.then_it_costs_s')}
      min={0}
      value={draft.rules.penalty}
      onset={(penalty) => rules({ penalty })}
    />
  {/if}
  {#if draft.kind === 'RACE'}
    <NumberField
      label={tell('rulesPanel.place_on_the_grid')}
      min={1}
      max={100}
      step={1}
      value={draft.rules.grid}
      onset={(grid) => rules({ grid })}
    />
  {/if}
  <NumberField
    label={tell('rulesPanel.pit_lane_km_h')}
    value={draft.rules.pitSpeed == null ? null : Math.round(draft.rules.pitSpeed * 3.6)}
    onset={(v) => rules({ pitSpeed: v === undefined ? undefined : v / 3.6 })}
  />
  <NumberField
    label={tell('rulesPanel.line_at_m')}
    placeholder={surveyed == null ? undefined : String(Math.round(surveyed))}
    value={draft.rules.pitLine}
    onset={(pitLine) => rules({ pitLine })}
  />
  <label class="flex items-center gap-1"
    ><span class="flex-none">{tell('rulesPanel.must')}</span><input
      class="input input-xs w-full"
      value={draft.rules.must}
      placeholder={tell('rulesPanel.one_stop')}
      onchange={(e) => rules({ must: e.currentTarget.value })}
    /></label
  >
</div>
{#if counted}
  {#if edges.data}
    <p data-limits>{edges.data.words}</p>
    <ul class="grid gap-0.5" aria-label={tell('rulesPanel.where_the_edge_is_worth')}>
      {#each edges.data.corners.slice(0, 4) as c (c.corner)}
        <li class="grid grid-cols-[5rem_minmax(0,1fr)_auto] items-center gap-2">
          <button class="link truncate text-left" onclick={() => onselect(c.corner)}>{c.called}</button>
          <span class="bg-base-content/50 block h-2.5 rounded-sm" style:width="{(100 * c.seconds) / most}%"></span>
          <span>{plain(c.seconds, 2)} s</span>
        </li>
      {/each}
    </ul>
  {:else if edges.isPending}<p role="status">{tell('rulesPanel.laying_the_line_with_less')}</p>{/if}
{/if}
{#if device}
  <div class="grid gap-1">
    {#each draft.rules.device as z, i (i)}
      <div class="flex items-center gap-2">
        <NumberField
          label={tell('rulesPanel.device_from_m')}
          value={z.from}
          onset={(v) => zone(i, { ...z, from: v ?? z.from })}
        />
        <NumberField label={tell('rulesPanel.to_m')} value={z.to} onset={(v) => zone(i, { ...z, to: v ?? z.to })} />
        <button
          class="btn btn-xs"
          onclick={() => zone(i, null)}
          aria-label={tell('rulesPanel.remove_zone', { number: i + 1 })}>{tell('rulesPanel.remove')}</button
        >
      </div>
    {/each}
    <button class="btn btn-xs justify-self-start" onclick={() => zone(draft.rules.device.length, { from: 0, to: 300 })}
      >{tell('rulesPanel.one_more_device_zone')}</button
    >
  </div>
{/if}

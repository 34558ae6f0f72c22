<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ask, type TrackSession } from '../../api/api';
  import NumberField from '../../kit/NumberField.svelte';
  import { plain } from '../../words/units';

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

<h3 class="mt-1 font-bold">Rules</h3>
<div class="grid grid-cols-2 gap-x-3 gap-y-1">
  <label class="flex items-center gap-1"
    ><span class="flex-1">off the road</span><select
      class="select select-xs w-28"
      value={draft.rules.limits}
      onchange={(e) => rules({ limits: e.currentTarget.value as TrackSession['rules']['limits'] })}
      ><option value="UNKNOWN">not said</option><option value="FREE">free</option><option value="LAP_DELETED"
        >lap deleted</option
      ><option value="WARNINGS">warnings</option><option value="PENALTY">penalty</option></select
    ></label
  >
  {#if counted}
    <NumberField
      label="warnings before it"
      min={0}
      max={20}
      step={1}
      value={draft.rules.warnings}
      onset={(v) => rules({ warnings: v ?? 0 })}
    />
    <NumberField label="then it costs, s" min={0} value={draft.rules.penalty} onset={(penalty) => rules({ penalty })} />
  {/if}
  {#if draft.kind === 'RACE'}
    <NumberField
      label="place on the grid"
      min={1}
      max={100}
      step={1}
      value={draft.rules.grid}
      onset={(grid) => rules({ grid })}
    />
  {/if}
  <NumberField
    label="pit lane km/h"
    value={draft.rules.pitSpeed == null ? null : Math.round(draft.rules.pitSpeed * 3.6)}
    onset={(v) => rules({ pitSpeed: v === undefined ? undefined : v / 3.6 })}
  />
  <NumberField
    label="line at, m"
    placeholder={surveyed == null ? undefined : String(Math.round(surveyed))}
    value={draft.rules.pitLine}
    onset={(pitLine) => rules({ pitLine })}
  />
  <label class="flex items-center gap-1"
    ><span class="flex-none">must</span><input
      class="input input-xs w-full"
      value={draft.rules.must}
      placeholder="one stop…"
      onchange={(e) => rules({ must: e.currentTarget.value })}
    /></label
  >
</div>
{#if counted}
  {#if edges.data}
    <p data-limits>{edges.data.words}</p>
    <ul class="grid gap-0.5" aria-label="Where the edge is worth most">
      {#each edges.data.corners.slice(0, 4) as c (c.corner)}
        <li class="grid grid-cols-[5rem_minmax(0,1fr)_auto] items-center gap-2">
          <button class="link truncate text-left" onclick={() => onselect(c.corner)}>{c.called}</button>
          <span class="bg-base-content/50 block h-2.5 rounded-sm" style:width="{(100 * c.seconds) / most}%"></span>
          <span>{plain(c.seconds, 2)} s</span>
        </li>
      {/each}
    </ul>
  {:else if edges.isPending}<p role="status">Laying the line with less road…</p>{/if}
{/if}
{#if device}
  <div class="grid gap-1">
    {#each draft.rules.device as z, i (i)}
      <div class="flex items-center gap-2">
        <NumberField label="device from, m" value={z.from} onset={(v) => zone(i, { ...z, from: v ?? z.from })} />
        <NumberField label="to, m" value={z.to} onset={(v) => zone(i, { ...z, to: v ?? z.to })} />
        <button class="btn btn-xs" onclick={() => zone(i, null)} aria-label="Remove zone {i + 1}">Remove</button>
      </div>
    {/each}
    <button class="btn btn-xs justify-self-start" onclick={() => zone(draft.rules.device.length, { from: 0, to: 300 })}
      >One more device zone</button
    >
  </div>
{/if}

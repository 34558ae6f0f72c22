<script lang="ts">
  import type { TrackSession } from '../../api/api';
  import NumberField from '../../kit/NumberField.svelte';

  interface Props {
    draft: TrackSession;
    /** Whether the vehicle has a device whose zones can be said. */
    device: boolean;
    put: (change: Partial<TrackSession>) => void;
  }
  let { draft, device, put }: Props = $props();

  type Zone = TrackSession['rules']['device'][number];
  function zone(at: number, other: Zone | null) {
    const zones = [...draft.rules.device];
    zones.splice(at, 1, ...(other ? [other] : []));
    put({ rules: { ...draft.rules, device: zones } });
  }
</script>

<h3 class="mt-1 font-bold">Rules</h3>
<div class="grid grid-cols-2 gap-x-3 gap-y-1">
  <label class="flex items-center gap-1"
    ><span class="flex-1">off the road</span><select
      class="select select-xs w-28"
      value={draft.rules.limits}
      onchange={(e) =>
        put({ rules: { ...draft.rules, limits: e.currentTarget.value as TrackSession['rules']['limits'] } })}
      ><option value="UNKNOWN">not said</option><option value="FREE">free</option><option value="LAP_DELETED"
        >lap deleted</option
      ><option value="WARNINGS">warnings</option><option value="PENALTY">penalty</option></select
    ></label
  >
  <NumberField
    label="pit lane km/h"
    value={draft.rules.pitSpeed == null ? null : Math.round(draft.rules.pitSpeed * 3.6)}
    onset={(v) => put({ rules: { ...draft.rules, pitSpeed: v === undefined ? undefined : v / 3.6 } })}
  />
  <NumberField
    label="line at, m"
    value={draft.rules.pitLine}
    onset={(v) => put({ rules: { ...draft.rules, pitLine: v } })}
  />
  <label class="flex items-center gap-1"
    ><span class="flex-none">must</span><input
      class="input input-xs w-full"
      value={draft.rules.must}
      placeholder="both compounds…"
      onchange={(e) => put({ rules: { ...draft.rules, must: e.currentTarget.value } })}
    /></label
  >
</div>
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

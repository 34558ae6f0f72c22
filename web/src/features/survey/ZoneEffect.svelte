<script lang="ts">
  import { onMount } from 'svelte';
  import type { Zone } from '../../api/api';
  import { catalogue } from '../../api/catalogue.svelte';

  /** On which days a zone counts, and what it leaves of the grip then. */
  let { zone }: { zone: Zone } = $props();
  onMount(() => void catalogue.load());
  const kind = $derived(catalogue.all?.zones.find((z) => z.kind === zone.kind));
  const left = $derived(zone.grip ?? kind?.grip[zone.severity - 1] ?? 1);
  const shown = $derived(`${Math.round(left * 100)} %`);
</script>

{#if kind}
  <p class="text-sm leading-snug" data-zone-effect={kind.water}>
    {#if left === 1}
      To be looked at; it changes no number yet.
    {:else if kind.water === 'NONE'}
      Counts on every day: leaves {shown} of the grip.
    {:else}
      <strong>Dry day: nothing.</strong> Damp or wet day: leaves {shown} of the grip.
      {kind.water === 'LAST' ? 'While it dries it is among the last to go.' : 'While it dries it goes with the water.'}
    {/if}
  </p>
{/if}

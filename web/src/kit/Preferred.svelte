<script lang="ts">
  import type { Preferences } from '../api/api';
  import { session } from '../api/session.svelte';
  import { tell } from '../words/tell';

  /** Units and names as one likes them. */
  const person = $derived(session.person);
</script>

{#if person}
  <select
    aria-label={tell('preferred.speed_in')}
    class={['select select-sm', person.speed.includes('_') ? 'w-32' : 'w-20']}
    name="speed"
    value={person.speed}
    onchange={(e) => session.prefer({ speed: e.currentTarget.value as Preferences['speed'] })}
  >
    <option value="KMH">km/h</option>
    <option value="MPH">mph</option>
    <option value="KMH_MPH">km/h (mph)</option>
    <option value="MPH_KMH">mph (km/h)</option>
  </select>
  <select
    aria-label={tell('preferred.lengths_in')}
    class="select select-sm w-16"
    name="length"
    value={person.length}
    onchange={(e) => session.prefer({ length: e.currentTarget.value as Preferences['length'] })}
  >
    <option value="M">m</option>
    <option value="FT">ft</option>
    <option value="YD">yd</option>
  </select>
  <select
    aria-label={tell('preferred.corners_by')}
    class="select select-sm w-24"
    name="corners"
    value={person.corners}
    onchange={(e) => session.prefer({ corners: e.currentTarget.value as Preferences['corners'] })}
  >
    <option value="NUMBERS">{tell('preferred.numbers')}</option>
    <option value="NAMES">{tell('preferred.names')}</option>
    <option value="BOTH">{tell('preferred.both')}</option>
  </select>
{/if}

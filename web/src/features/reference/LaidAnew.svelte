<script lang="ts">
  import type { LaidView } from '../../api/api';
  import { metres, signed } from '../../words/units';
  import type { Desk } from './desk.svelte';

  /** The line laid anew between two corners, drawn dotted on the strip: taken or left. */
  let { desk, laid }: { desk: Desk; laid: LaidView } = $props();
  const to = $derived((laid.from + laid.metres) % desk.road.length);
  const by = $derived(laid.lapAfter - laid.lapBefore);
</script>

<p class="flex h-9 items-center gap-2 text-sm" role="status" data-laid-anew-note>
  <span class="flex-1 leading-tight">
    Dotted: the line laid anew from {metres(laid.from)} to {metres(to)},
    <strong class="tabular-nums">{signed(by, 3)} s a lap</strong> against the line at hand.
  </span>
  <button class="btn btn-sm btn-primary" disabled={desk.busy || !desk.mine} onclick={() => void desk.takeLaid()}
    >Take it</button
  >
  <button class="btn btn-sm" onclick={() => desk.leaveLaid()}>Leave it</button>
</p>

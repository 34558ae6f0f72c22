<script lang="ts">
  import type { LaidView } from '../../api/api';
  import { metres, signed } from '../../words/units';
  import type { Desk } from './desk.svelte';
  import { tell } from '../../words/tell';

  /** The line laid anew between two corners, drawn dotted on the strip: taken or left. */
  let { desk, laid }: { desk: Desk; laid: LaidView } = $props();
  const to = $derived((laid.from + laid.metres) % desk.road.length);
  const by = $derived(laid.lapAfter - laid.lapBefore);
</script>

<p class="flex h-9 items-center gap-2 text-sm" role="status" data-laid-anew-note>
  <span class="flex-1 leading-tight">
    {tell('laidAnew.dotted_the_line_laid_anew', { from: metres(laid.from), to: metres(to) })}
    <strong class="tabular-nums">{tell('laidAnew.s_a_lap', { by: signed(by, 3) })}</strong>
    {tell('laidAnew.against_the_line_at_hand')}
  </span>
  <button class="btn btn-sm btn-primary" disabled={desk.busy || !desk.mine} onclick={() => void desk.takeLaid()}
    >{tell('laidAnew.take_it')}</button
  >
  <button class="btn btn-sm" onclick={() => desk.leaveLaid()}>{tell('laidAnew.leave_it')}</button>
</p>

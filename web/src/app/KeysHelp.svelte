<script lang="ts">
  import { typing } from '../kit/keys';
  import { tell } from '../words/tell';

  let dialog: HTMLDialogElement;
  const keys: [string, string][] = [
    [tell('keysHelp.and'), tell('keysHelp.corner_before_corner_after')],
    ['b t r a f g e', tell('keysHelp.take_hold_of_braking_turn')],
    ['← →', tell('keysHelp.move_what_you_hold_by')],
    [tell('keysHelp.and_2'), tell('keysHelp.move_the_pencil_by_5')],
    ['l j y v', tell('keysHelp.lift_shift_eyes_place_across')],
    ['↑ ↓', tell('keysHelp.amount_of_the_action_in')],
    [tell('keysHelp.c_and'), tell('keysHelp.next_cue_of_the_action')],
    [tell('keysHelp.backspace_delete'), tell('keysHelp.leave_its_amount_open_take')],
    ['1 … 9', tell('keysHelp.gear_at_the_slowest_point')],
    [tell('keysHelp.ctrl_z_ctrl_shift_z'), tell('keysHelp.undo_redo')],
    ['m w q h k o d p n', tell('keysHelp.marker_ways_gears_axles_edges')],
    ['s', tell('keysHelp.save_a_revision')],
    ['Esc', tell('keysHelp.let_go_close')],
    ['?', tell('keysHelp.this_list')],
  ];

  function onkeydown(event: KeyboardEvent) {
    if (event.key === '?' && !typing(event)) {
      event.preventDefault();
      dialog.showModal();
    }
  }
</script>

<svelte:window {onkeydown} />

<dialog bind:this={dialog} class="modal" aria-labelledby="keys-title">
  <div class="modal-box">
    <h2 id="keys-title" class="mb-3 text-lg font-bold">{tell('keysHelp.keys')}</h2>
    <dl class="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1">
      {#each keys as [key, what] (key)}
        <dt class="font-semibold whitespace-nowrap">{key}</dt>
        <dd>{what}</dd>
      {/each}
    </dl>
    <p class="mt-3 text-sm">{tell('keysHelp.keys_wait_while_you_type')}</p>
    <form method="dialog" class="modal-action"><button class="btn">{tell('keysHelp.close')}</button></form>
  </div>
</dialog>

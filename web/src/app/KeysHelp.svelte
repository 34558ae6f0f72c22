<script lang="ts">
  import { typing } from '../kit/keys';

  let dialog: HTMLDialogElement;
  const keys: [string, string][] = [
    ['[ and ]', 'corner before, corner after'],
    ['b t r a f g e', 'take hold of braking, turn-in, release, apex, first throttle, full throttle, exit'],
    ['← →', 'move what you hold by 1 m; with Shift by 5 m'],
    [', and .', 'move the pencil by 5 m; with Shift by 1 m'],
    ['l j y v', 'lift, shift, eyes, place across at the pencil; with Shift another'],
    ['↑ ↓', 'amount of the action in hand; 6 5 Enter types it, 0.5s how long'],
    ['c and /', 'next cue of the action in hand; say one'],
    ['Backspace, Delete', 'leave its amount open; take it out'],
    ['1 … 9', 'gear at the slowest point, where nothing is in hand'],
    ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
    ['m w q h k o d p n', 'marker, ways, gears, axles, edges, more, days, pace, remarks of the corner'],
    ['s', 'save a revision'],
    ['Esc', 'let go, close'],
    ['?', 'this list'],
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
    <h2 id="keys-title" class="mb-3 text-lg font-bold">Keys</h2>
    <dl class="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1">
      {#each keys as [key, what] (key)}
        <dt class="font-semibold whitespace-nowrap">{key}</dt>
        <dd>{what}</dd>
      {/each}
    </dl>
    <p class="mt-3 text-sm">Keys wait while you type in a field.</p>
    <form method="dialog" class="modal-action"><button class="btn">Close</button></form>
  </div>
</dialog>

<script lang="ts">
  import { onMount } from 'svelte';
  import type { CornerEntry } from '../../api/api';
  import type { Conflict, Desk } from './desk.svelte';
  import { foundBy, POINTS } from '../../road/points';
  import { metres } from '../../words/units';
  import { few } from '../../words/few';
  import { tell } from '../../words/tell';

  let { desk, conflict }: { desk: Desk; conflict: Conflict } = $props();
  let dialog: HTMLDialogElement;
  onMount(() => dialog.showModal());

  const rows = $derived(
    desk.view.corners.flatMap((c) => {
      const mine = conflict.mine.corners.find((e) => e.corner === c.id);
      const theirs = conflict.theirs.corners.find((e) => e.corner === c.id);
      return mine && theirs && JSON.stringify(mine) !== JSON.stringify(theirs) ? [{ corner: c, mine, theirs }] : [];
    }),
  );
  let choice = $state<Record<string, 'mine' | 'theirs'>>({});

  function words(a: CornerEntry, b: CornerEntry): string {
    const out: string[] = [];
    for (const p of a.points) {
      const other = b.points.find((q) => q.kind === p.kind);
      if (!other || Math.abs(other.station - p.station) >= 0.25)
        out.push(`${POINTS[p.kind].word} ${foundBy(p, metres) ?? metres(p.station)}`);
    }
    if (a.gear !== b.gear) out.push(tell('conflictDialog.gear', { gear: a.gear }));
    if (a.note !== b.note)
      out.push(a.note ? tell('conflictDialog.note', { note: a.note }) : tell('conflictDialog.no_note'));
    if (a.firstEffort !== b.firstEffort)
      out.push(tell('conflictDialog.first_effort', { firstEffort: Math.round(a.firstEffort * 100) }));
    if (a.slowing !== b.slowing) out.push(few(a.slowing));
    return out.join(', ') || tell('conflictDialog.speeds_only');
  }

  function settle() {
    const days = conflict.theirs.variants.filter((v) => !conflict.mine.variants.some((m) => m.id === v.id));
    desk.resolve({
      ...conflict.mine,
      variants: [...conflict.mine.variants, ...days],
      corners: conflict.theirs.corners.map((theirs) => {
        const mine = conflict.mine.corners.find((e) => e.corner === theirs.corner);
        return mine && (choice[theirs.corner] ?? 'mine') === 'mine' ? mine : theirs;
      }),
    });
  }
</script>

<dialog bind:this={dialog} class="modal" aria-labelledby="conflict-title" oncancel={(e) => e.preventDefault()}>
  <div class="modal-box max-w-3xl">
    <h2 id="conflict-title" class="text-lg font-bold">{tell('conflictDialog.two_windows_changed_this_reference')}</h2>
    <p class="mb-3">{tell('conflictDialog.choose_for_each_corner_what')}</p>
    <table class="table">
      <thead
        ><tr
          ><th>{tell('conflictDialog.corner')}</th><th>{tell('conflictDialog.this_window')}</th><th
            >{tell('conflictDialog.the_other_window')}</th
          ></tr
        ></thead
      >
      <tbody>
        {#each rows as row (row.corner.id)}
          <tr>
            <th scope="row">{row.corner.number}</th>
            <td>
              <label class="flex gap-2">
                <input
                  type="radio"
                  class="radio radio-sm"
                  name={row.corner.id}
                  checked={(choice[row.corner.id] ?? 'mine') === 'mine'}
                  onchange={() => (choice[row.corner.id] = 'mine')}
                />
                {words(row.mine, row.theirs)}
              </label>
            </td>
            <td>
              <label class="flex gap-2">
                <input
                  type="radio"
                  class="radio radio-sm"
                  name={row.corner.id}
                  checked={choice[row.corner.id] === 'theirs'}
                  onchange={() => (choice[row.corner.id] = 'theirs')}
                />
                {words(row.theirs, row.mine)}
              </label>
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    <div class="modal-action">
      <button class="btn btn-primary" onclick={settle}>{tell('conflictDialog.keep_these')}</button>
    </div>
  </div>
</dialog>

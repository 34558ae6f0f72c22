<script lang="ts">
  import { onMount } from 'svelte';
  import type { Action, CornerPoint, Detail, Gate, KerbUse, School } from '../../api/api';
  import { catalogue } from '../../api/catalogue.svelte';
  import { apart, foundBy, POINTS } from '../../road/points';
  import { few, type Few } from '../../words/few';
  import { tell } from '../../words/tell';
  import { metres } from '../../words/units';
  import { clashes, takenOver, together, type Clash, type Conflict, type Side } from './clash';
  import type { Desk } from './desk.svelte';

  let { desk, conflict }: { desk: Desk; conflict: Conflict } = $props();
  let dialog: HTMLDialogElement;
  onMount(() => dialog.showModal());

  const rows = $derived(clashes(conflict));
  const others = $derived(takenOver(conflict));
  let choice = $state<Record<string, Side>>({});
  const side = (c: Clash): Side => choice[c.key] ?? 'mine';
  const numberOf = (id: string) => desk.view.corners.find((c) => c.id === id)?.number ?? '';
  const percent = (share: number) => tell('conflictDialog.percent', { share: Math.round(share * 100) });

  const FIELDS: Record<string, string> = {
    note: tell('conflictDialog.the_note'),
    gear: tell('conflictDialog.the_gear'),
    slowing: tell('conflictDialog.slowing'),
    firstThrottle: tell('conflictDialog.first_throttle'),
    apexGap: tell('conflictDialog.off_the_apex'),
    apexOff: tell('conflictDialog.off_the_apex'),
    givenAway: tell('conflictDialog.given_away'),
    kerbs: tell('conflictDialog.kerbs'),
    pedals: tell('conflictDialog.pedals'),
    schools: tell('conflictDialog.ways'),
    priority: tell('conflictDialog.priority'),
    wording: tell('conflictDialog.wording'),
  };
  const actionOf = (c: Clash) => ((c.mine ?? c.theirs) as Action).kind;
  function called(c: Clash): string {
    switch (c.kind) {
      case 'point':
        return POINTS[c.name as CornerPoint['kind']].word;
      case 'action':
        return few(actionOf(c));
      case 'field': {
        const detail = /^details\.(.*)/.exec(c.name)?.[1];
        if (detail) return catalogue.detail(detail as Detail)?.words ?? detail;
        return FIELDS[c.name] ?? tell('conflictDialog.something');
      }
      case 'gate':
        return tell('conflictDialog.a_gate');
      case 'opened':
        return tell('conflictDialog.edges');
      case 'pace':
        return tell('conflictDialog.pace');
      default:
        return tell('conflictDialog.a_day', { name: dayOf(c.name) });
    }
  }
  const dayOf = (id: string) =>
    [...conflict.mine.variants, ...conflict.theirs.variants].find((v) => v.id === id)?.name ?? '';

  function place(a: Action): string {
    const amount = a.gear != null ? [tell('conflictDialog.gear', { gear: a.gear })] : [];
    if (a.amount != null) amount.push(a.kind === 'PLACE' ? metres(a.amount, 1) : percent(a.amount));
    return [...amount, a.cue?.spoken || metres(a.station), a.note].filter(Boolean).join(', ');
  }
  /** What one side has, in short words. */
  function words(c: Clash, value: unknown): string {
    if (value === undefined) return tell('conflictDialog.left_out');
    if (c.kind === 'point') {
      const p = value as CornerPoint;
      const at = foundBy(p, metres) ?? metres(p.station);
      return p.play?.amount != null ? `${percent(p.play.amount)}, ${at}` : at;
    }
    if (c.kind === 'action') return place(value as Action);
    if (c.kind === 'gate') {
      const g = value as Gate;
      return tell('conflictDialog.gate', { metres: metres(g.metres, 1), left: g.left });
    }
    if (c.name === 'gear') return tell('conflictDialog.gear', { gear: value as number });
    if (c.name === 'note')
      return value ? tell('conflictDialog.note', { note: value as string }) : tell('conflictDialog.no_note');
    if (c.name === 'slowing') return few(value as Few);
    if (c.name === 'firstThrottle' || c.name === 'givenAway') return percent(value as number);
    if (c.name === 'apexGap' || c.name === 'apexOff') return metres(value as number, 1);
    if (c.name === 'schools')
      return (value as School[]).map((s) => catalogue.school(s)).join(', ') || tell('conflictDialog.none');
    if (c.name === 'kerbs')
      return (value as KerbUse[]).map((k) => few(k.part)).join(', ') || tell('conflictDialog.none');
    if (typeof value === 'string' || typeof value === 'number') return String(value);
    return tell('conflictDialog.otherwise');
  }

  /** Where along the road something stands, if it stands somewhere. */
  const stationOf = (value: unknown) => (value as { station?: number } | undefined)?.station;
  /** Both places on a line that shows how far they are apart. */
  function marks(c: Clash) {
    const [m, t] = [stationOf(c.mine), stationOf(c.theirs)];
    if (m === undefined || t === undefined) return null;
    const by = apart(m, t, desk.view.length);
    const wide = Math.max(20, Math.abs(by) * 1.3);
    return { mine: 60 - (by / wide) * 45, theirs: 60 + (by / wide) * 45, by };
  }
</script>

<dialog bind:this={dialog} class="modal" aria-labelledby="conflict-title" oncancel={(e) => e.preventDefault()}>
  <div class="modal-box max-w-3xl">
    <h2 id="conflict-title" class="text-lg font-bold">{tell('conflictDialog.two_windows_changed_this_reference')}</h2>
    <p class="mb-3">
      {tell('conflictDialog.both_changed_these')}
      {#if others}{tell('conflictDialog.the_rest', { others })}{/if}
    </p>
    <table class="table-sm table">
      <thead
        ><tr
          ><th colspan="2">{tell('conflictDialog.corner')}</th><th>{tell('conflictDialog.this_window')}</th><td></td><th
            >{tell('conflictDialog.the_other_window')}</th
          ></tr
        ></thead
      >
      <tbody>
        {#each rows as row (row.key)}
          {@const at = marks(row)}
          <tr data-clash={row.key}>
            <th scope="row">{row.corner ? numberOf(row.corner) : ''}</th>
            <td>{called(row)}</td>
            {@render take(row, 'mine', words(row, row.mine))}
            <td class="px-0">
              {#if at}
                <svg
                  width="120"
                  height="26"
                  role="img"
                  aria-label={tell('conflictDialog.apart', { metres: metres(Math.abs(at.by), 1) })}
                >
                  <path d="M4 20H116" stroke="var(--ink)" />
                  {#each [side(row) === 'mine' ? 'theirs' : 'mine', side(row)] as const as who (who)}
                    <path
                      d="M{at[who]} 20V4l9 4l-9 4"
                      stroke="var(--ink)"
                      stroke-width="1.6"
                      fill={who === side(row) ? 'var(--ink)' : 'none'}
                      stroke-dasharray={who === side(row) ? undefined : '3 2'}
                    />
                  {/each}
                </svg>
              {/if}
            </td>
            {@render take(row, 'theirs', words(row, row.theirs))}
          </tr>
        {/each}
      </tbody>
    </table>
    <div class="modal-action">
      <button class="btn btn-primary" onclick={() => desk.resolve(together(conflict, choice))}
        >{tell('conflictDialog.keep_these')}</button
      >
    </div>
  </div>
</dialog>

{#snippet take(row: Clash, who: Side, text: string)}
  <td>
    <button
      class={['btn btn-sm h-auto py-1 text-left', side(row) === who ? 'btn-primary' : 'btn-outline']}
      aria-pressed={side(row) === who}
      data-side={who}
      onclick={() => (choice[row.key] = who)}>{text}</button
    >
  </td>
{/snippet}

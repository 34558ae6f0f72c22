<script lang="ts">
  import { api, ask, asProblem, type Compromise, type Problem, type School } from '../../api/api';
  import { catalogue } from '../../api/catalogue.svelte';
  import type { Desk } from './desk.svelte';
  import { metres, signed } from '../../words/units';
  import { pathOf } from '../../road/strip';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { tell } from '../../words/tell';

  /** Linked corners: total time against how much of one is given away. */
  let { desk }: { desk: Desk } = $props();

  const ways = ['GIVE_FIRST', 'GIVE_SECOND', 'GIVE_MIDDLE'] as const;
  let way = $state<School>('GIVE_FIRST');
  let most = $state(1);
  let picture = $state.raw<Compromise | null>(null);
  let problem = $state.raw<Problem | null>(null);
  let at = $state<number | null>(null);
  const base = $derived(desk.base);
  const mine = $derived(ways.find((w) => base?.schools.includes(w)));

  $effect(() => {
    if (mine) way = mine;
  });
  let turn = 0;
  $effect(() => {
    const body = { corner: desk.selected, school: way, most };
    const now = ++turn;
    void ask(api.POST('/api/references/{id}/compromise', { params: { path: { id: desk.view.id } }, body }))
      .then((found) => {
        if (now === turn) picture = found;
      })
      .catch((e: unknown) => (problem = asProblem(e)));
  });

  const W = 270;
  const H = 96;
  const nothing = $derived(picture?.steps[0]?.seconds ?? 0);
  const low = $derived(Math.min(...(picture?.steps ?? []).map((s) => s.seconds - nothing), -0.02));
  const high = $derived(Math.min(0.6, Math.max(...(picture?.steps ?? []).map((s) => s.seconds - nothing), 0.02)));
  const x = (given: number) => 26 + given * (W - 34);
  const y = (by: number) => 12 + ((high - Math.min(high, by)) / (high - low)) * (H - 44);
  const shown = $derived(at ?? (mine === way ? (base?.givenAway ?? 0) : 0));
  const step = $derived(
    picture?.steps.reduce((a, b) => (Math.abs(b.given - shown) < Math.abs(a.given - shown) ? b : a)),
  );
  const number = (id: string) => desk.view.corners.find((c) => c.id === id)?.number ?? id;

  async function take(given: number) {
    await desk.takeSchool(way);
    const corners = picture?.corners ?? [];
    if (Math.abs(given - (picture?.best.given ?? 0)) > 0.01)
      desk.replace({
        ...desk.content,
        corners: desk.content.corners.map((e) => (corners.includes(e.corner) ? { ...e, givenAway: given } : e)),
      });
  }
  function pick(event: MouseEvent) {
    const box = (event.currentTarget as SVGElement).getBoundingClientRect();
    const given = Math.max(0, Math.min(most, (event.clientX - box.left - 26) / (W - 34)));
    at = Math.round(given * 10) / 10;
  }
</script>

<div class="mt-1" data-compromise>
  {#if problem}<ProblemBox {problem} />{/if}
  <div class="join" role="group" aria-label={tell('sharePicture.which_is_given_away')}>
    {#each ways as w (w)}
      <button
        class={['btn btn-xs join-item', way === w ? 'btn-primary' : '']}
        aria-pressed={way === w}
        onclick={() => ((way = w), (at = null))}>{catalogue.school(w)}</button
      >
    {/each}
  </div>
  {#if picture}
    <svg
      width={W}
      height={H}
      class="block cursor-pointer"
      role="slider"
      tabindex="0"
      aria-label={tell('sharePicture.how_much_is_given_away')}
      aria-valuenow={Math.round(shown * 100)}
      aria-valuemin="0"
      aria-valuemax="100"
      aria-valuetext="{Math.round(shown * 100)} %, {signed((step?.seconds ?? 0) - nothing, 2)} s"
      onclick={pick}
      onkeydown={(e) => {
        const by = e.key === 'ArrowRight' ? 0.1 : e.key === 'ArrowLeft' ? -0.1 : 0;
        if (by) at = Math.max(0, Math.min(most, Math.round((shown + by) * 10) / 10));
      }}
    >
      <path d="M26 {y(0)}H{W - 8}" stroke="var(--ink-soft)" stroke-dasharray="3 3" />
      <path d="M26 8V{H - 16}" stroke="var(--ink-soft)" />
      <text x="22" y={y(0) + 4} text-anchor="end" style="font-size:11px">0</text>
      <text
        x={x(picture.best.given) + (picture.best.given > 0.7 ? -8 : 8)}
        y={y(picture.best.seconds - nothing) + 14}
        text-anchor={picture.best.given > 0.7 ? 'end' : 'start'}
        style="font-size:11px"
        >{tell('sharePicture.best_s', { nothing: signed(picture.best.seconds - nothing, 2) })}</text
      >
      <path
        d={pathOf(picture.steps.map((s): [number, number] => [x(s.given), y(s.seconds - nothing)]))}
        fill="none"
        stroke="var(--ink)"
        stroke-width="2"
      />
      <path d="M{x(picture.best.given)} {y(picture.best.seconds - nothing) + 4}l-5 9h10z" fill="var(--ink)" />
      {#if step}
        <circle
          cx={x(step.given)}
          cy={y(step.seconds - nothing)}
          r="5"
          fill="var(--color-base-100)"
          stroke="var(--ink)"
          stroke-width="2"
        />
      {/if}
      <text x="26" y={H - 3} style="font-size:11px">{tell('sharePicture.nothing')}</text>
      <text x={W - 8} y={H - 3} text-anchor="end" style="font-size:11px"
        >{tell('sharePicture.given_away', { number: picture.given.map(number).join(' and ') })}</text
      >
    </svg>
    {#if step}
      <p class="text-xs leading-tight" data-sacrifice>
        {tell('sharePicture.the_line_moves_in_s', {
          given: Math.round(step.given * 100),
          step: metres(step.metres, 1),
          number: picture.given.map(number).join(' and '),
          lost: signed(step.lost, 2),
          won: signed(-step.won, 2),
          nothing: signed(step.seconds - nothing, 2),
          given2: Math.round(picture.best.given * 100),
          nothing2: signed(picture.best.seconds - nothing, 2),
        })}
      </p>
      <div class="mt-1 flex items-center gap-2">
        <label class="flex items-center gap-1 text-xs"
          >{tell('sharePicture.at_most')}
          <input
            class="input input-xs w-14 text-right"
            type="number"
            min="0"
            max="100"
            step="10"
            value={Math.round(most * 100)}
            onchange={(e) => (most = Math.max(0, Math.min(1, e.currentTarget.valueAsNumber / 100 || 0)))}
          />%</label
        >
        <button
          class="btn btn-xs ml-auto"
          disabled={!desk.movable || desk.busy || desk.day !== ''}
          onclick={() => take(step.given)}>{tell('sharePicture.drive_it_so')}</button
        >
      </div>
    {/if}
  {:else}
    <p role="status">{tell('sharePicture.driving_each_share')}</p>
  {/if}
</div>

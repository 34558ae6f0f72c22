<script lang="ts">
  import { api, ask, asProblem, type Compared, type Outcome, type Problem, type Question } from '../../api/api';
  import { catalogue } from '../../api/catalogue.svelte';
  import type { Desk } from './desk.svelte';
  import { metres, plain, signed, speedText } from '../../words/units';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import SharePicture from './SharePicture.svelte';
  import { tell } from '../../words/tell';

  /** The questions that practitioners answer differently, and what each answer costs here. */
  let { desk }: { desk: Desk } = $props();

  let questions = $state.raw<Question[]>([]);
  let open = $state<Question | null>(null);
  let compared = $state.raw<Compared | null>(null);
  let problem = $state.raw<Problem | null>(null);
  let hour = $state('');
  /** The last corner of a stretch that is driven in one style; empty for this corner alone. */
  let through = $state('');
  let took = $state<number | null>(null);
  const MOST = 12;
  const onwards = $derived.by(() => {
    const all = desk.view.corners.filter((c) => c.number);
    const here = all.findIndex((c) => c.id === desk.selected);
    return here < 0 ? [] : [...all.slice(here + 1), ...all.slice(0, here)].slice(0, MOST - 1);
  });
  $effect(() => {
    void desk.selected;
    through = '';
    took = null;
  });
  async function take(school: NonNullable<Outcome['school']>) {
    const to = through;
    const count = await desk.takeSchool(school, to || undefined);
    took = to ? count : null;
  }
  const path = $derived({ path: { id: desk.view.id } });
  /** The corner as it is driven on the day that is worked on. */
  const entry = $derived(desk.entry);
  const day = $derived(desk.variant?.day);

  // The entry settles after a drag; asking at every move would be work for nothing.
  let asked = 0;
  $effect(() => {
    if (!entry) return;
    const on = { entry, day };
    const turn = ++asked;
    const wait = setTimeout(async () => {
      try {
        const found = await ask(api.POST('/api/references/{id}/choices/arising', { params: path, body: on }));
        if (turn !== asked) return;
        questions = found;
        problem = null;
        if (open && !found.includes(open)) open = null;
        if (open) await compare(open);
      } catch (e) {
        if (turn === asked) problem = asProblem(e);
      }
    }, 350);
    return () => clearTimeout(wait);
  });

  async function compare(question: Question) {
    if (!entry) return;
    if (open !== question) compared = null;
    open = question;
    const body = { entry, question, day, ...(hour ? { at: hour } : {}) };
    try {
      const found = await ask(api.POST('/api/references/{id}/choices', { params: path, body }));
      if (open === question) compared = found;
    } catch (e) {
      problem = asProblem(e);
    }
  }

  const chosen = (q: Question) => entry?.schools.find((s) => catalogue.questionOf(s) === q);
  const SPAN = 76;
  const most = $derived(
    Math.max(
      0.05,
      ...(compared?.outcomes ?? []).map((o) =>
        o.toNext == null || compared?.now.toNext == null ? 0 : Math.abs(o.toNext - compared.now.toNext),
      ),
    ),
  );
  const change = (o: Outcome) =>
    o.toNext == null || compared?.now.toNext == null ? null : o.toNext - compared.now.toNext;
  const linked = $derived(open === 'LINKED');
  const tyres = (o: Outcome) => (compared ? Math.round((o.tyreWork / compared.now.tyreWork - 1) * 100) : 0);

  function parts(o: Outcome): string {
    const told = o.precision == null ? '' : tell('waysPanel.marker_told_to', { precision: metres(o.precision, 1) });
    if (open === 'LIGHT' && told) return told;
    if (o.toNext == null) return tell('waysPanel.cannot_be_made_with_the');
    const out: string[] = told ? [told] : [];
    const corner =
      o.cornerTime != null && compared?.now.cornerTime != null ? o.cornerTime - compared.now.cornerTime : 0;
    if (!linked) out.push(tell('waysPanel.corner_s', { corner: signed(corner, 2) }));
    if (Math.abs(o.brakingMoved) >= 0.5)
      out.push(
        `${metres(Math.abs(o.brakingMoved), open === 'MARKERS' ? 1 : 0)} ${o.brakingMoved < 0 ? tell('waysPanel.sooner') : tell('waysPanel.later')}`,
      );
    if (open === 'BRAKE_SHAPE' || open === 'RELEASE')
      out.push(tell('waysPanel.peak', { peak: Math.round(o.peak * 100) }));
    if (open === 'CREST') out.push(tell('waysPanel.asks_at_crest', { asks: Math.round(o.asks * 100) }));
    if (open === 'GEAR') out.push(tell('waysPanel.gear', { gear: o.gear }));
    if (linked) out.push(tell('waysPanel.given', { givenAway: Math.round(o.givenAway * 100) }));
    out.push(tell('waysPanel.low', { minimumSpeed: speedText(o.minimumSpeed) }));
    if (Math.abs(tyres(o)) >= 1) out.push(tell('waysPanel.tyres', { tyres: signed(tyres(o)) }));
    return out.join(', ');
  }
</script>

<section class="grid gap-1 text-sm" aria-label={tell('waysPanel.ways_of_doing_it')}>
  {#if problem}<ProblemBox {problem} />{/if}
  {#if questions.length === 0}<p role="status">{tell('waysPanel.nothing_here_on_which_drivers')}</p>{/if}
  {#each questions as q (q)}
    {@const mine = chosen(q)}
    <div class={['border-base-300 border-t pt-1', open === q ? 'pb-1' : '']} data-question={q}>
      <button class="flex w-full items-baseline gap-2 text-left" aria-expanded={open === q} onclick={() => compare(q)}>
        <strong class="first-letter:uppercase inline-block">{catalogue.question(q)}</strong>
        <span class="min-w-0 flex-1 truncate text-right"
          >{mine ? catalogue.school(mine) : tell('waysPanel.left_open')}</span
        >
      </button>
      {#if open === q}
        {#if !compared}
          <p role="status">{tell('waysPanel.driving_each')}</p>
        {:else}
          <ul class="mt-1 grid gap-1.5">
            {#each compared.outcomes as o (o.school)}
              {@const by = change(o)}
              <li data-school={o.school}>
                <div class="flex items-center gap-2">
                  <button
                    class={[
                      'btn btn-xs h-auto min-h-6 flex-1 justify-start py-0.5 text-left leading-tight',
                      o.chosen ? 'btn-primary' : '',
                    ]}
                    disabled={o.toNext == null || !desk.movable || desk.busy}
                    aria-pressed={o.chosen}
                    onclick={() => o.school && take(o.school)}
                  >
                    {o.school ? catalogue.school(o.school) : ''}{#if compared.best === o.school}<em
                        class="ml-1 font-normal">{tell('waysPanel.best_here')}</em
                      >{/if}
                  </button>
                  <svg width={SPAN + 44} height="16" class="flex-none" aria-hidden="true">
                    <path d="M{SPAN / 2} 0V16" stroke="var(--ink-soft)" />
                    {#if by !== null && q !== 'LIGHT'}
                      {@const w = (by / most) * (SPAN / 2 - 2)}
                      <rect
                        x={SPAN / 2 + Math.min(0, w)}
                        y="4"
                        width={Math.max(1.5, Math.abs(w))}
                        height="8"
                        fill={by <= 0 ? 'var(--ink)' : 'none'}
                        stroke="var(--ink)"
                      />
                      <text x={SPAN + 44} y="12" text-anchor="end" font-weight="700">{signed(by, 2)} s</text>
                    {/if}
                  </svg>
                </div>
                <p class="pl-1 text-xs leading-tight">{parts(o)}</p>
              </li>
            {/each}
          </ul>
          {#if q !== 'LINKED' && !desk.day && desk.movable}
            <label class="mt-1 flex items-center gap-2 text-xs"
              >{tell('waysPanel.taken_for')}
              <select class="select select-xs flex-1" bind:value={through} data-through>
                <option value="">{tell('waysPanel.this_corner_alone')}</option>
                {#each onwards as c (c.id)}<option value={c.id}
                    >{tell('waysPanel.on_to_corner', { number: c.number })}</option
                  >{/each}
              </select></label
            >
            {#if took !== null}<p class="text-xs" role="status">{tell('waysPanel.taken_in', { took })}</p>{/if}
          {/if}
          {#if q === 'LINKED'}<SharePicture {desk} />{/if}
          {#if q === 'LIGHT'}
            <label class="mt-1 flex items-center gap-2"
              >{tell('waysPanel.at')}
              <input
                class="input input-xs flex-1"
                type="datetime-local"
                bind:value={hour}
                onchange={() => compare('LIGHT')}
              /></label
            >
          {/if}
          <p class="mt-1 text-xs leading-tight opacity-80">
            {tell('waysPanel.how_closely_the_marker_can', {
              isLight: q === 'LIGHT',
              isMarkers: q === 'MARKERS',
              hasLinked: !!linked,
              marginSeconds: compared.now.marginSeconds
                ? tell('waysPanel.of_s', { marginSeconds: plain(compared.now.marginSeconds, 2) })
                : '',
              hasMine: !!(q === 'BRAKE_SHAPE' && !mine),
            })}
          </p>
        {/if}
      {/if}
    </div>
  {/each}
  {#if desk.day}<p class="text-xs">{tell('waysPanel.chosen_for_this_day')}</p>{/if}
</section>

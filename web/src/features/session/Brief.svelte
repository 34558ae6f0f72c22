<script lang="ts">
  import { onDestroy, untrack } from 'svelte';
  import { api, ask, asProblem, type PlannedSession, type Problem } from '../../api/api';
  import { keepOffline } from '../../api/offline';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { inLength, inSpeed, lengthUnit, plain, speedUnit } from '../../words/units';
  import { ERRANDS } from '../../words/errands';
  import { clock, day, hours, until } from '../../words/clock';
  import { changedSince, nextDue, said } from './sessions';
  import { few } from '../../words/few';
  import { tell } from '../../words/tell';

  let { params }: { params: { id: string } } = $props();
  let view = $state.raw<PlannedSession | null>(null);
  /** Corners that are not known by heart; none is marked before anything was rehearsed. */
  let unknown = $state.raw<string[]>([]);
  let problem = $state<Problem | null>(null);
  let at = $state(0);
  let one = $state(window.innerWidth < 640);
  let size = $state<'A4' | 'A5'>('A4');
  let big = $state(false);
  let noted = $state(false);
  let now = $state(Date.now());
  const timer = setInterval(() => (now = Date.now()), 15_000);
  onDestroy(() => clearInterval(timer));

  $effect(() => {
    const id = params.id;
    untrack(async () => {
      try {
        view = await ask(api.GET('/api/sessions/{id}', { params: { path: { id } } }));
        void keepOffline([`/api/sessions/${id}`, `/api/sessions/${id}/log`, `/api/sessions/${id}/readiness`]);
        unknown = await ask(api.GET('/api/sessions/{id}/readiness', { params: { path: { id } } }))
          .then((r) => (r.unknown.length < r.corners ? r.unknown : []))
          .catch(() => []);
      } catch (e) {
        problem = asProblem(e);
      }
    });
  });
  const plan = $derived(view?.plan ?? null);
  const zone = $derived(view?.line.session.timing.start.zone ?? 'UTC');
  const tells = $derived(plan && view ? said(plan, view) : {});
  const changed = $derived(changedSince(view?.briefRead, tells));
  const corner = $derived(plan?.corners[at] ?? null);
  /** Whether the sun is down at the circuit; by the hour where nobody has said where it lies. */
  const dusk = $derived.by(() => {
    const light = plan?.daylight;
    const at = hours(new Date(now).toISOString(), zone);
    if (!light) return at >= 21 || at < 6;
    return at > hours(light.sets, zone) || at < hours(light.rises, zone);
  });
  // A brief kept on the device by an earlier version has neither.
  const brief = $derived((view?.brief as PlannedSession['brief'] | undefined) ?? []);
  const CHANGED: Partial<Record<string, string>> = { FOCUS: 'focus', WARM: 'warm', LAPS: 'laps' };
  const WHEN = { ALL: '', FIRST: tell('brief.first_laps'), LAST: tell('brief.last_laps') };

  async function read() {
    if (!view) return;
    try {
      await ask(api.POST('/api/sessions/{id}/read', { params: { path: { id: view.line.id } }, body: { said: tells } }));
      noted = true;
      view = { ...view, briefRead: tells, briefReadAt: new Date().toISOString() };
    } catch (e) {
      problem = asProblem(e);
    }
  }
  const next = $derived(view ? nextDue(view.line, now) : null);
  const go = (by: number) => (at = Math.max(0, Math.min((plan?.corners.length ?? 1) - 1, at + by)));
</script>

{#snippet markers(plan: NonNullable<PlannedSession['plan']>)}
  {#if unknown.length}<p>{tell('brief.not_known_by_heart_yet')}</p>{/if}
  <table>
    <thead
      ><tr
        ><th>{tell('brief.corner')}</th><th>{tell('brief.how')}</th><th class="n">{tell('brief.gear')}</th><th class="n"
          >{speedUnit()}</th
        ></tr
      ></thead
    >
    <tbody>
      {#each plan.corners as c (c.corner)}
        <tr>
          <th scope="row"
            >{changed.has(`corner ${c.corner}`) ? '▸ ' : ''}{c.called}{unknown.includes(c.corner) ? ' ?' : ''}</th
          >
          <td>{c.words.line}</td>
          <td class="n">{c.today.entry.gear}</td>
          <td class="n">{plain(inSpeed(c.today.slowest))}</td>
        </tr>
      {/each}
    </tbody>
  </table>
{/snippet}

<svelte:window
  onkeydown={(e) => {
    if (e.key === 'ArrowRight') go(1);
    if (e.key === 'ArrowLeft') go(-1);
  }}
/>

<main class={['brief', dusk ? 'night' : '', big ? 'bigger' : '']} data-paper={size}>
  {#if problem}<ProblemBox {problem} />{/if}
  {#if !view}
    {#if !problem}<p role="status">{tell('brief.opening_the_brief')}</p>{/if}
  {:else if !plan}
    <p>
      {tell('brief.there_is_no_plan_yet')}
      <a class="link" href="#/session/{params.id}">{tell('brief.choose_the_reference_for_this')}</a>.
    </p>
  {:else}
    <nav class="no-print flex flex-wrap gap-2 pb-2" aria-label={tell('brief.brief')}>
      <a class="btn min-h-11" href="#/session/{params.id}">{tell('brief.plan')}</a>
      <a class="btn min-h-11" href="#/log/{params.id}">{tell('brief.log')}</a>
      <button class="btn min-h-11" aria-pressed={one} onclick={() => (one = !one)}
        >{tell('brief.one_page_corner_by_corner', { hasValue: !!one })}</button
      >
      <button class="btn min-h-11" aria-pressed={big} onclick={() => (big = !big)}>{tell('brief.large')}</button>
      {#if !one}
        <button class="btn min-h-11" onclick={() => (size = size === 'A4' ? 'A5' : 'A4')}>{size}</button>
        <button class="btn min-h-11" onclick={() => print()}>{tell('brief.print')}</button>
        <a class="btn min-h-11" href="/api/sessions/{params.id}/brief.pdf?size={size}" download>{tell('brief.pdf')}</a>
        <a
          class="btn min-h-11"
          href="/api/sessions/{params.id}/pack.zip"
          download
          title={tell('brief.brief_today_s_reference_lap')}>{tell('brief.all_in_one')}</a
        >
        <a class="btn min-h-11" href="/api/sessions/{params.id}/brief.json" download>{tell('brief.json')}</a>
        <a class="btn min-h-11" href="/api/sessions/{params.id}/session.ics" download>{tell('brief.calendar')}</a>
      {/if}
      <button class="btn min-h-11" onclick={read}>{tell('brief.noted_i_have_read_it', { hasNoted: !!noted })}</button>
    </nav>
    <header>
      <h1>{view.line.session.name}</h1>
      <p>
        <strong>{day(view.line.begins, zone)} {clock(view.line.begins, zone)}</strong>, {until(view.line.begins, now)}
        {#if view.line.session.timing.later}<span class="mark"
            >{tell('brief.min_later_than_announced', { later: view.line.session.timing.later })}</span
          >{/if}
        {#if view.line.session.timing.state !== 'ON'}<span class="mark">· {few(view.line.session.timing.state)}</span
          >{/if}
        {#if view.line.clocks}<span class="mark">{view.line.clocks}</span>{/if}
      </p>
      <p>
        {tell('brief.as_of_revision_with_changes', {
          vehicle: plan.vehicle,
          zone: clock(plan.asOf, zone),
          revision: plan.revision,
          hasChanged: !!plan.changed,
          zone2: next ? tell('brief.next_by', { word: ERRANDS[next.errand].word, zone: clock(next.until, zone) }) : '',
        })}
      </p>
      <p>{tell('brief.planned_for', { has: changed.has('conditions') ? '▸ ' : '', conditions: view.conditions })}</p>
      {#if changed.size}
        <p class="mark" role="status">
          {tell('brief.one_thing_has_things_have', {
            size: changed.size,
            zone: view.briefReadAt ? tell('brief.at', { zone: clock(view.briefReadAt, zone) }) : '',
          })}
        </p>
      {/if}
    </header>

    {#if one && corner}
      <section class="corner" aria-live="polite">
        <p class="number">
          {changed.has(`corner ${corner.corner}`) ? '▸ ' : ''}{corner.called}
        </p>
        <ul>
          {#each corner.today.differences.slice(0, 4) as d, i (i)}
            <li>
              <strong>{WHEN[d.when]}{d.words}</strong>{d.reason && d.reason !== corner.today.differences[i - 1]?.reason
                ? `, ${d.reason}`
                : ''}
            </li>
          {/each}
        </ul>
        <p>{corner.words.line}</p>
        {#if unknown.includes(corner.corner)}<p><strong>{tell('brief.not_known_by_heart_yet_2')}</strong></p>{/if}
        {#if corner.today.early.some((m) => m >= 1)}
          <p>
            {tell('brief.cold_sooner_lap_by_lap', {
              inLength: corner.today.early.map((m) => plain(inLength(m))).join(', '),
              lengthUnit: lengthUnit(),
            })}
          </p>
        {/if}
        {#each plan.focus.filter((f) => f.focus.corner === corner.corner) as f (f.called)}
          <p><strong>{tell('brief.focus')}</strong> {f.words} {f.cure}</p>
        {/each}
        <p>{corner.escape}</p>
      </section>
      <footer class="no-print thumb">
        <button class="btn" onclick={() => go(-1)} disabled={at === 0}>{tell('brief.before')}</button>
        <span>{at + 1} / {plan.corners.length}</span>
        <button class="btn" onclick={() => go(1)} disabled={at === plan.corners.length - 1}>{tell('brief.next')}</button
        >
      </footer>
    {:else}
      {#each brief as part (part.kind)}
        <section>
          <h2>{changed.has(CHANGED[part.kind] ?? '') ? '▸ ' : ''}{part.head}</h2>
          {#if part.kind === 'MARKERS'}{@render markers(plan)}{/if}
          <ul class={part.lines.filter((l) => l.called).length > 3 ? 'two' : ''}>
            {#each part.lines as l, i (i)}
              <li>
                {#if l.called}<strong>{changed.has(`corner ${l.corner}`) ? '▸ ' : ''}{l.called}</strong>{/if}
                {l.words}
              </li>
            {/each}
          </ul>
        </section>
      {/each}
    {/if}
  {/if}
</main>

<style>
  .brief {
    max-width: 62rem;
    margin: 0 auto;
    padding: 0.75rem;
    min-height: 100vh;
    background: #fff;
    color: #000;
    font-size: 20px;
    line-height: 1.3;
  }
  .brief.bigger {
    font-size: 26px;
  }
  .brief.night {
    background: #16151b;
    color: #ece5d6;
  }
  h1 {
    font-size: 1.25em;
    font-weight: 800;
  }
  h2 {
    font-size: 1.05em;
    font-weight: 800;
    border-bottom: 2px solid currentColor;
    margin-top: 0.6em;
  }
  .mark {
    font-weight: 800;
  }
  ul.two {
    columns: 2 22rem;
    column-gap: 1.5rem;
  }
  li {
    break-inside: avoid;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 0.1em 0.5em 0.1em 0;
    border-bottom: 1px solid currentColor;
  }
  .n {
    text-align: right;
    white-space: nowrap;
  }
  th[scope='row'] {
    white-space: nowrap;
  }
  .corner {
    font-size: 1.2em;
    padding-bottom: 6rem;
  }
  .corner .number {
    font-size: 2.2em;
    font-weight: 800;
    line-height: 1.1;
  }
  .corner li,
  .corner p {
    margin-top: 0.4em;
  }
  .thumb {
    position: fixed;
    inset: auto 0 0;
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 12px;
    padding: 12px;
    background: inherit;
    border-top: 2px solid currentColor;
  }
  .brief:not(.night) .thumb {
    background: #fff;
  }
  .brief.night .thumb {
    background: #16151b;
  }
  .thumb .btn {
    min-height: 64px;
    min-width: 38%;
    font-size: 22px;
  }
  @media print {
    .brief,
    .brief.night {
      background: #fff;
      color: #000;
      font-size: 8.6pt;
      max-width: none;
      padding: 0;
      min-height: 0;
    }
    .brief[data-paper='A5'] {
      font-size: 6.4pt;
    }
  }
</style>

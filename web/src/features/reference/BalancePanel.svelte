<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ask, asProblem, type CornerEntry } from '../../api/api';
  import { metres, plain, signed } from '../../words/units';
  import { disagrees, DONE, drivenAs, lanes, MOVES, PARTS, WHEELS, type Balance } from './balance';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import type { Desk } from './desk.svelte';
  import { tell } from '../../words/tell';

  const FEELS = { pushes: tell('few.pushes'), even: tell('few.even'), turns: tell('few.turns') };

  /** How the corner as planned uses the front and the rear, and what one step would move. */
  let { desk, entry }: { desk: Desk; entry: CornerEntry } = $props();
  const id = $derived(desk.view.id);
  /** What is asked: the corner at rest; every move of a drag would be work for nothing. */
  let still = $state.raw<{ entry: CornerEntry; variant: typeof desk.variant } | null>(null);
  $effect(() => {
    const next = { entry, variant: desk.variant };
    const wait = setTimeout(() => (still = next), 300);
    return () => clearTimeout(wait);
  });
  const told = createQuery(() => ({
    queryKey: ['balance', id, still],
    enabled: still !== null,
    queryFn: () =>
      ask(
        api.POST('/api/references/{id}/balance', {
          params: { path: { id } },
          body: { entry: still?.entry ?? entry, variant: still?.variant },
        }),
      ),
    placeholderData: (old: Balance | undefined) => old,
  }));
  const b = $derived(told.data);

  const W = 276;
  const H = 104;
  const drawn = $derived(b ? lanes(b, desk.road.length, W, H) : null);
  const MID = 150;
  /** What is done and what is set are drawn on scales of their own: a step of a set-up is small. */
  const groups = $derived(
    [
      { title: tell('balancePanel.what_moves_it_here'), moves: b?.moves.filter((m) => DONE.includes(m.what)) ?? [] },
      { title: tell('balancePanel.one_step_of_the_set'), moves: b?.moves.filter((m) => !DONE.includes(m.what)) ?? [] },
    ]
      .filter((g) => g.moves.length)
      .map((g) => {
        const most = Math.max(0.002, ...g.moves.flatMap((m) => [m.entry, m.middle, m.exit].map(Math.abs)));
        return { ...g, most, bar: (by: number) => (by / most) * 44 };
      }),
  );
  const borne = $derived.by(() => {
    if (!b) return 1;
    const ahead = (((b.exit.station - b.from) % desk.road.length) + desk.road.length) % desk.road.length;
    return b.bears[Math.min(b.bears.length - 1, Math.round(ahead / b.step))] ?? 1;
  });
  const turnWord = (by: number) =>
    Math.abs(by) < 0.0005
      ? tell('balancePanel.nothing')
      : by > 0
        ? tell('balancePanel.pushes_more')
        : tell('balancePanel.turns_more');

  const slip = $derived(b ? (b.middle.understeer * 180) / Math.PI : 0);

  function feel(detail: (typeof PARTS)[number]['detail'], word: string) {
    desk.edit((e) => {
      const { [detail]: was, ...rest } = e.details;
      return { ...e, details: was === word ? rest : { ...e.details, [detail]: word } };
    });
    desk.settle();
  }
</script>

<section class="grid gap-1.5 text-sm" aria-label={tell('balancePanel.balance')}>
  {#if b && drawn}
    <svg
      width={W}
      height={H}
      class="block"
      role="img"
      aria-label={tell('balancePanel.share_of_the_grip_that', {
        pARTS: PARTS.map((p) => `${p.word}: ${b[p.part].words}`).join('; '),
      })}
    >
      {#each drawn.pushes as d (d)}<path {d} fill="url(#hatch)" />{/each}
      {#each drawn.turns as d (d)}<path {d} fill="var(--throttle-fill)" />{/each}
      <path d="M0 {drawn.limit}H{W}" stroke="var(--ink-soft)" stroke-dasharray="2 4" />
      <text x="0" y={drawn.limit - 3} style="font-size:10px">{tell('balancePanel.all_of_its_grip')}</text>
      <path d={drawn.front} fill="none" stroke="var(--ink)" stroke-width="2" />
      <path d={drawn.rear} fill="none" stroke="var(--ink)" stroke-width="1.4" stroke-dasharray="5 3" />
      {#each PARTS as p (p.part)}
        {@const x = drawn.x(b[p.part].station)}
        <path d="M{x} 12V{H - 14}" stroke="var(--ink-soft)" stroke-width="0.8" />
        <text {x} y={H - 3} text-anchor="middle" style="font-size:11px">{p.word}</text>
      {/each}
    </svg>
    <p class="text-xs leading-tight">
      {tell('balancePanel.full_line_the_front_broken')}
    </p>
    <ul class="grid gap-0.5" data-balance>
      {#each PARTS as p (p.part)}
        {@const part = b[p.part]}
        {@const said = entry.details[p.detail]}
        <li class="grid grid-cols-[2.6rem_1fr_auto] items-center gap-x-1">
          <span>{p.word}</span>
          <strong data-part={p.part}>{part.words}</strong>
          <span class="join" role="group" aria-label={tell('balancePanel.how_it_feels', { word: p.word })}>
            {#each ['pushes', 'even', 'turns'] as const as word (word)}
              <button
                type="button"
                class={['btn btn-xs join-item px-1', said === word ? 'btn-primary' : '']}
                aria-pressed={said === word}
                disabled={!desk.mine || !!desk.day}
                data-feel="{p.part}-{word}"
                onclick={() => feel(p.detail, word)}>{FEELS[word]}</button
              >
            {/each}
          </span>
          {#if disagrees(part.how, said)}
            <p class="border-warning col-span-3 border-l-4 pl-2 text-xs" data-disagrees>
              {tell('balancePanel.you_feel_that_it_is', { isEven: said === 'even', said, words: part.words })}
            </p>
          {/if}
        </li>
      {/each}
    </ul>
    {#each groups as g (g.title)}
      <h3 class="mt-1 font-bold">{g.title}</h3>
      <svg
        width={W}
        height={16 + g.moves.length * 30}
        class="block"
        role="list"
        aria-label={g.title}
        style="font-size:11px"
      >
        <text x={MID - 6} y="10" text-anchor="end">{tell('balancePanel.turns', { most: plain(g.most * 100, 1) })}</text>
        <text x={MID + 6} y="10">{tell('balancePanel.pushes')}</text>
        {#each g.moves as m, i (m.what)}
          {@const y = 16 + i * 30}
          <g
            role="listitem"
            data-move={m.what}
            aria-label={tell('balancePanel.on_the_way_in_it', {
              what: MOVES[m.what].join(', '),
              entry: turnWord(m.entry),
              middle: turnWord(m.middle),
              exit: turnWord(m.exit),
              lap: m.lap == null ? '' : tell('balancePanel.seconds_a_lap', { lap: signed(m.lap, 3) }),
            })}
          >
            <text x="0" y={y + 12}>{MOVES[m.what][0]}</text>
            <text x="0" y={y + 24} style="fill:var(--ink-soft)">{MOVES[m.what][1]}</text>
            <path d="M{MID} {y + 1}v26" stroke="var(--ink)" />
            {#each [m.entry, m.middle, m.exit] as by, k (k)}
              <rect
                x={MID + Math.min(0, g.bar(by))}
                y={y + 2 + k * 8.5}
                width={Math.max(Math.abs(by) < 0.0005 ? 0 : 1.5, Math.abs(g.bar(by)))}
                height="7"
                fill={by > 0 ? 'url(#hatch)' : 'var(--throttle-fill)'}
                stroke="var(--ink)"
                stroke-width="0.8"
              />
            {/each}
            {#if m.lap != null}
              <text x={W} y={y + 18} text-anchor="end" style="font-variant-numeric:tabular-nums"
                >{tell('balancePanel.s_a_lap', { lap: signed(m.lap, 3) })}</text
              >
            {/if}
          </g>
        {/each}
      </svg>
    {/each}
    <p class="text-xs leading-tight">{tell('balancePanel.the_bars_from_above_in')}</p>
    {#if b.around.length}
      <h3 class="mt-1 font-bold">{tell('balancePanel.the_set_up_is_fixed')}</h3>
      <ul class="grid gap-0.5 text-xs leading-tight" data-around>
        {#each b.around as a (a.words)}<li>{a.words.charAt(0).toUpperCase() + a.words.slice(1)}.</li>{/each}
      </ul>
    {/if}
    {@const steps = b.moves.filter((m) => !DONE.includes(m.what))}
    {#if steps.length}
      <ul class="grid gap-0.5 text-xs leading-tight" aria-label={tell('balancePanel.each_step_otherwise')} data-steps>
        {#each steps as m (m.what)}
          {@const like = drivenAs(b, m)}
          <li data-step={m.what}>
            <strong>{MOVES[m.what].join(' ')}</strong>:
            {#if like}{tell('balancePanel.as_much_on_the_way', { like })}{:else}{tell(
                'balancePanel.no_braking_does_that_on',
              )}{/if}
          </li>
        {/each}
      </ul>
    {/if}
    {#if b.locks.length}
      <h3 class="mt-1 font-bold">{tell('balancePanel.which_wheel_locks')}</h3>
      <div class="grid gap-1" data-locks>
        {#each b.locks as l (l.turning)}
          <div class="grid grid-cols-[74px_1fr] items-center gap-2">
            <svg width="74" height="84" role="img" aria-label={l.words} class="block">
              <path d="M37 8V76M20 20H54M20 64H54" stroke="var(--ink-soft)" />
              <!-- The inner wheels lie on the side that the corner turns to. -->
              {#each WHEELS as w, k (w.word)}
                {@const use = Math.min(1, (l.use[k] ?? 0) * (l.planned > 0 ? 1 : 0))}
                {@const first = l.first === w.is || (l.alike && WHEELS.find((x) => x.is === l.first)?.y === w.y)}
                {@const x = desk.corner?.left ? w.x : 74 - w.x}
                <rect
                  x={x - 8}
                  y={w.y - 14}
                  width="16"
                  height="28"
                  rx="4"
                  fill="var(--color-base-100)"
                  stroke="var(--ink)"
                  stroke-width={first ? 3 : 1}
                />
                <rect x={x - 6} y={w.y + 12 - 24 * use} width="12" height={24 * use} fill="url(#hatch)" />
              {/each}
            </svg>
            <p class="text-xs leading-tight">{l.words.charAt(0).toUpperCase() + l.words.slice(1)}.</p>
          </div>
        {/each}
        <p class="text-xs leading-tight">
          {tell('balancePanel.hatched_how_much_of_what', { hasAntiLock: !!b.antiLock })}
        </p>
      </div>
    {/if}
    <p class="text-xs leading-tight" data-hands>
      <strong>{tell('balancePanel.hands')}</strong>
      {tell('balancePanel.have_most_to_do_at', { station: metres(b.hands.station), words: b.hands.words })}
    </p>
    <p class="text-xs leading-tight">
      {#if Math.abs(slip) >= 0.1}
        {tell('balancePanel.in_the_middle_the_front', { slip: plain(Math.abs(slip), 1), someSlip: slip > 0 })}
      {/if}
      {tell('balancePanel.on_the_way_out_at', {
        station: metres(b.exit.station),
        borne: plain(Math.round(borne * 100)),
      })}
      {#if b.usual}
        {tell('balancePanel.the_axles_are_told_by')}
        <a class="link" href="#/vehicle/{desk.view.vehicleId}">{tell('balancePanel.enter_your_own')}</a>.
      {/if}
    </p>
  {:else if told.error}
    <ProblemBox problem={asProblem(told.error)} />
  {:else}
    <p>{tell('balancePanel.looking_at_both_axles')}</p>
  {/if}
</section>

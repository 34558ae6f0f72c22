<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ask, asProblem, type CornerEntry } from '../../api/api';
  import { metres, plain, signed } from '../../words/units';
  import { disagrees, DONE, drivenAs, lanes, MOVES, PARTS, WHEELS, type Balance } from './balance';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import type { Desk } from './desk.svelte';

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
      { title: 'What moves it here', moves: b?.moves.filter((m) => DONE.includes(m.what)) ?? [] },
      { title: 'One step of the set-up', moves: b?.moves.filter((m) => !DONE.includes(m.what)) ?? [] },
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
  const turnWord = (by: number) => (Math.abs(by) < 0.0005 ? 'nothing' : by > 0 ? 'pushes more' : 'turns more');

  /** On which side the inner wheels are. */
  const inside = $derived(desk.corner?.left ? 'left' : 'right');
  const slip = $derived(b ? (b.middle.understeer * 180) / Math.PI : 0);

  function feel(detail: (typeof PARTS)[number]['detail'], word: string) {
    desk.edit((e) => {
      const { [detail]: was, ...rest } = e.details;
      return { ...e, details: was === word ? rest : { ...e.details, [detail]: word } };
    });
    desk.settle();
  }
</script>

<section class="grid gap-1.5 text-sm" aria-label="Balance">
  {#if b && drawn}
    <svg
      width={W}
      height={H}
      class="block"
      role="img"
      aria-label="Share of the grip that front and rear use through the corner. {PARTS.map(
        (p) => `${p.word}: ${b[p.part].words}`,
      ).join('; ')}"
    >
      {#each drawn.pushes as d (d)}<path {d} fill="url(#hatch)" />{/each}
      {#each drawn.turns as d (d)}<path {d} fill="var(--throttle-fill)" />{/each}
      <path d="M0 {drawn.limit}H{W}" stroke="var(--ink-soft)" stroke-dasharray="2 4" />
      <text x="0" y={drawn.limit - 3} style="font-size:10px">all of its grip</text>
      <path d={drawn.front} fill="none" stroke="var(--ink)" stroke-width="2" />
      <path d={drawn.rear} fill="none" stroke="var(--ink)" stroke-width="1.4" stroke-dasharray="5 3" />
      {#each PARTS as p (p.part)}
        {@const x = drawn.x(b[p.part].station)}
        <path d="M{x} 12V{H - 14}" stroke="var(--ink-soft)" stroke-width="0.8" />
        <text {x} y={H - 3} text-anchor="middle" style="font-size:11px">{p.word}</text>
      {/each}
    </svg>
    <p class="text-xs leading-tight">
      Full line the front, broken the rear; hatched where the front uses more and it pushes, filled where it turns.
    </p>
    <ul class="grid gap-0.5" data-balance>
      {#each PARTS as p (p.part)}
        {@const part = b[p.part]}
        {@const said = entry.details[p.detail]}
        <li class="grid grid-cols-[2.6rem_1fr_auto] items-center gap-x-1">
          <span>{p.word}</span>
          <strong data-part={p.part}>{part.words}</strong>
          <span class="join" role="group" aria-label="How it feels, {p.word}">
            {#each ['pushes', 'even', 'turns'] as word (word)}
              <button
                type="button"
                class={['btn btn-xs join-item px-1', said === word ? 'btn-primary' : '']}
                aria-pressed={said === word}
                disabled={!desk.mine || !!desk.day}
                data-feel="{p.part}-{word}"
                onclick={() => feel(p.detail, word)}>{word}</button
              >
            {/each}
          </span>
          {#if disagrees(part.how, said)}
            <p class="border-warning col-span-3 border-l-4 pl-2 text-xs" data-disagrees>
              You feel that it {said === 'even' ? 'is even' : said}; the numbers say: {part.words}. Look at the
              vehicle’s axles, or what is done there.
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
        <text x={MID - 6} y="10" text-anchor="end">turns {plain(g.most * 100, 1)} %</text>
        <text x={MID + 6} y="10">pushes</text>
        {#each g.moves as m, i (m.what)}
          {@const y = 16 + i * 30}
          <g
            role="listitem"
            data-move={m.what}
            aria-label="{MOVES[m.what]}: on the way in it {turnWord(m.entry)}, in the middle {turnWord(
              m.middle,
            )}, on the way out {turnWord(m.exit)}{m.lap == null ? '' : `; ${signed(m.lap, 3)} seconds a lap`}"
          >
            <text x="0" y={y + 12}>{MOVES[m.what].split(', ')[0]}</text>
            <text x="0" y={y + 24} style="fill:var(--ink-soft)">{MOVES[m.what].split(', ')[1] ?? ''}</text>
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
                >{signed(m.lap, 3)} s a lap</text
              >
            {/if}
          </g>
        {/each}
      </svg>
    {/each}
    <p class="text-xs leading-tight">The bars from above: in, middle, out; on the line at hand.</p>
    {#if b.around.length}
      <h3 class="mt-1 font-bold">The set-up is fixed: drive round it</h3>
      <ul class="grid gap-0.5 text-xs leading-tight" data-around>
        {#each b.around as a (a.words)}<li>{a.words.charAt(0).toUpperCase() + a.words.slice(1)}.</li>{/each}
      </ul>
    {/if}
    {@const steps = b.moves.filter((m) => !DONE.includes(m.what))}
    {#if steps.length}
      <ul class="grid gap-0.5 text-xs leading-tight" aria-label="Each step otherwise" data-steps>
        {#each steps as m (m.what)}
          {@const like = drivenAs(b, m)}
          <li data-step={m.what}>
            <strong>{MOVES[m.what].replace(',', '')}</strong>:
            {#if like}as much on the way in as {like}.{:else}no braking does that on the way in.{/if}
          </li>
        {/each}
      </ul>
    {/if}
    {#if b.locks.length}
      <h3 class="mt-1 font-bold">Which wheel locks</h3>
      <div class="grid gap-1" data-locks>
        {#each b.locks as l (l.turning)}
          <div class="grid grid-cols-[74px_1fr] items-center gap-2">
            <svg width="74" height="84" role="img" aria-label={l.words} class="block">
              <path d="M37 8V76M20 20H54M20 64H54" stroke="var(--ink-soft)" />
              {#each WHEELS as w, k (w.word)}
                {@const use = Math.min(1, (l.use[k] ?? 0) * (l.planned > 0 ? 1 : 0))}
                {@const first = l.first === w.is || (l.alike && WHEELS.find((x) => x.is === l.first)?.y === w.y)}
                {@const x = inside === 'left' ? w.x : 74 - w.x}
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
          Hatched: how much of what it holds each wheel uses as planned; thick: {b.antiLock
            ? 'the first that the anti-lock holds.'
            : 'locks first. Without anti-lock.'}
        </p>
      </div>
    {/if}
    <p class="text-xs leading-tight" data-hands>
      <strong>Hands</strong> have most to do at {metres(b.hands.station)}: {b.hands.words}.
    </p>
    <p class="text-xs leading-tight">
      {#if Math.abs(slip) >= 0.1}
        In the middle the front slips {plain(Math.abs(slip), 1)}° {slip > 0 ? 'more' : 'less'} than the rear.
      {/if}
      On the way out, at {metres(b.exit.station)}, the driven tyres bear {plain(Math.round(borne * 100))} % of full throttle.
      {#if b.usual}
        The axles are told by what is usual for such a vehicle:
        <a class="link" href="#/vehicle/{desk.view.vehicleId}">enter your own</a>.
      {/if}
    </p>
  {:else if told.error}
    <ProblemBox problem={asProblem(told.error)} />
  {:else}
    <p>Looking at both axles…</p>
  {/if}
</section>

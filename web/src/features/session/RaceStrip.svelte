<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ask, type Corner, type RoadView } from '../../api/api';
  import { lapAcross, middleOf } from '../../road/strip';
  import { metres, plain, signed, speedText } from '../../words/units';
  import { tell } from '../../words/tell';

  /**
   * The lap as it is raced: below each corner what following somebody slower through it costs, above the road where
   * there is time to breathe and from where each post is in view; the chosen corner from the inside.
   */
  interface Props {
    session: string;
    version: number;
    road: RoadView;
    corners: Corner[];
    selected: string;
    onselect: (corner: string) => void;
  }
  let { session, version, road, corners, selected, onselect }: Props = $props();

  const race = createQuery(() => ({
    queryKey: ['session-race', session, version],
    queryFn: () => ask(api.GET('/api/sessions/{id}/race', { params: { path: { id: session } } })),
    placeholderData: (before) => before,
  }));
  const inside = createQuery(() => ({
    queryKey: ['session-inside', session, version, selected],
    enabled: !!selected,
    queryFn: () =>
      ask(api.GET('/api/sessions/{id}/inside/{corner}', { params: { path: { id: session, corner: selected } } })),
  }));

  const HEIGHT = 160;
  const ROAD = 90;
  let width = $state(900);
  const x = $derived(lapAcross(corners, road.length, width));
  const by = $derived(new Map(corners.map((c) => [c.id, c])));
  const craft = $derived(race.data?.craft ?? null);
  const most = $derived(Math.max(0.1, ...(craft?.held ?? []).map((h) => h.seconds)));
  const called = (c: string) => race.data?.called[c] ?? c;
  /** Pieces of a stretch, two where it runs over the line. */
  const pieces = (from: number, to: number): [number, number][] =>
    to >= from
      ? [[from, to]]
      : [
          [from, road.length],
          [0, to],
        ];
  const dearest = $derived([...(craft?.held ?? [])].sort((a, b) => b.seconds - a.seconds).slice(0, 3));
  /** The chosen corner, else those with most. */
  const gathers = $derived.by(() => {
    const all = race.data?.gathers ?? [];
    const here = all.filter((g) => g.corner === selected);
    return here.length ? here : all.slice(0, 3);
  });
  /** A rough edge along the road: the rougher, the more goes wrong there. */
  const teeth = (from: number, to: number, y: number, high: number) => {
    const n = Math.max(1, Math.round((to - from) / 7));
    const w = (to - from) / n;
    return Array.from({ length: n }, (_, k) => {
      const at = from + k * w;
      return `M${at.toFixed(1)} ${y} L${(at + w / 2).toFixed(1)} ${(y - high).toFixed(1)} L${(at + w).toFixed(1)} ${y}`;
    }).join(' ');
  };
  const chosen = $derived(inside.data?.inside ?? null);
  const gauge = $derived(craft?.gauges.find((g) => g.corner === selected) ?? null);

  const PLAN = 86;
  /** The stretch straightened: edges, and the line from the inside. */
  const drawn = $derived.by(() => {
    const c = chosen;
    if (!c || c.offset.length < 2) return null;
    const n = c.offset.length;
    const at = (k: number, list: number[]) =>
      list[Math.floor((((c.from + k * c.step) % road.length) / road.step) % list.length)] ?? 5;
    const wide = Math.max(...Array.from({ length: n }, (_, k) => Math.max(at(k, road.left), at(k, road.right))));
    const px = (k: number) => (k / (n - 1)) * width;
    const py = (metresLeft: number) => PLAN / 2 - (metresLeft / wide) * (PLAN / 2 - 6);
    const path = (f: (k: number) => number) =>
      Array.from(
        { length: Math.ceil(n / 3) },
        (_, j) =>
          `${j ? 'L' : 'M'}${px(Math.min(n - 1, j * 3)).toFixed(1)} ${py(f(Math.min(n - 1, j * 3))).toFixed(1)}`,
      ).join(' ');
    return {
      left: path((k) => at(k, road.left)),
      right: path((k) => -at(k, road.right)),
      line: path((k) => c.offset[k] ?? 0),
    };
  });
</script>

<div bind:clientWidth={width} data-race-strip>
  {#if craft}
    <svg {width} height={HEIGHT} role="group" aria-label={tell('raceStrip.the_lap_as_it_is')}>
      <line x1="0" x2={width} y1={ROAD} y2={ROAD} stroke="var(--road)" stroke-width="9" />
      {#each craft.breathing as b (b.from)}
        {#each pieces(b.from, b.to) as [from, to], i (i)}
          <rect
            x={x(from)}
            y={ROAD - 20}
            width={Math.max(0, x(to) - x(from))}
            height="11"
            rx="5"
            fill="currentColor"
            opacity="0.18"
          />
          {#if i === 0}
            <text x={(x(from) + x(to)) / 2} y={ROAD - 24} text-anchor="middle" font-size="11" fill="currentColor"
              >{tell('raceStrip.breathe_s', { seconds: plain(b.seconds, 1) })}</text
            >
          {/if}
        {/each}
      {/each}
      {#each craft.posts as p (p.station)}
        <line
          x1={x(Math.max(0, p.station - p.sight))}
          x2={x(p.station)}
          y1="14"
          y2="14"
          stroke="currentColor"
          stroke-width="2"
          opacity="0.4"
        />
        <line x1={x(p.station)} x2={x(p.station)} y1="6" y2="22" stroke="currentColor" stroke-width="2.5" />
        <text x={x(p.station) - 4} y="34" text-anchor="end" font-size="11" fill="currentColor"
          >{tell('raceStrip.post_left_right', {
            label: p.label || '?',
            hasLeft: !!p.left,
            sight: metres(p.sight),
          })}</text
        >
      {/each}
      {#each race.data?.pass ?? [] as p (p.id)}
        <text x={x(p.from)} y={ROAD + 4} text-anchor="middle" font-size="11" font-weight="700" fill="currentColor"
          >{tell('raceStrip.pass_defend', { isPass: p.kind === 'PASS' })}</text
        >
      {/each}
      {#each race.data?.gathers ?? [] as g (g.corner)}
        {@const c = by.get(g.corner)}
        {#if c}
          <path
            d={teeth(x(c.entry), x(c.exit > c.entry ? c.exit : road.length), ROAD - 7, 2 + 5 * g.share)}
            fill="none"
            stroke="currentColor"
            stroke-width={g.own ? 2.5 : 1.2}
            data-gathers={g.corner}><title>{called(g.corner)}: {g.words}</title></path
          >
        {/if}
      {/each}
      {#if gauge}
        {@const ahead = (gauge.at + gauge.arriving) % road.length}
        <g data-gauge>
          <path d="M{x(gauge.at)} {ROAD - 13} l-7 -5 v10 z" fill="currentColor" />
          <path d="M{x(ahead)} {ROAD - 13} l-7 -5 v10 z" fill="none" stroke="currentColor" stroke-width="1.5" />
        </g>
      {/if}
      {#each craft.held as h (h.corner)}
        {@const c = by.get(h.corner)}
        {#if c}
          {@const cx = x(middleOf(c, road.length))}
          <g
            role="button"
            tabindex="0"
            aria-label={tell('raceStrip.s_behind_somebody_slower', {
              corner: called(h.corner),
              seconds: plain(h.seconds, 2),
            })}
            aria-pressed={selected === h.corner}
            class="cursor-pointer"
            onclick={() => onselect(h.corner)}
            onkeydown={(e) => {
              if (e.key === 'Enter' || e.key === ' ') {
                e.preventDefault();
                onselect(h.corner);
              }
            }}
          >
            <rect x={cx - 13} y={ROAD + 6} width="26" height={HEIGHT - ROAD - 6} fill="transparent" />
            <rect
              x={cx - 5}
              y={ROAD + 8}
              width="10"
              height={Math.max(1, (h.seconds / most) * 38)}
              fill="currentColor"
              opacity={selected === h.corner ? 0.85 : 0.45}
            />
            <text
              x={cx}
              y={HEIGHT - 8}
              text-anchor="middle"
              font-size="11"
              font-weight={selected === h.corner ? 700 : 400}
              fill="currentColor">{c.number}</text
            >
          </g>
        {/if}
      {/each}
    </svg>
    <p class="text-sm">
      {tell('raceStrip.behind_somebody_slower_you_lose', {
        dearest: dearest.map((h) => `${called(h.corner)} (${plain(h.seconds, 2)} s)`).join(', '),
      })}
    </p>
    {#if gauge}
      <p class="text-sm" data-gauge-words>
        {tell('raceStrip.somebody')} <strong>{tell('raceStrip.a_second_ahead')}</strong>
        {tell('raceStrip.into_is_in_front_as', {
          corner: called(gauge.corner),
          arriving: metres(gauge.arriving),
          slowest: metres(gauge.slowest),
          arriving2: metres(gauge.arriving / 10),
        })}
      </p>
    {/if}
    {#if gathers.length}
      <p class="text-sm" data-gathering>
        {tell('raceStrip.errors_gather')}
        {#each gathers as g, i (g.corner)}{tell('raceStrip.at', { before: i ? '; ' : '' })}
          <strong>{called(g.corner)}</strong>: {g.words.replace(/\.$/, '')}{/each}.
      </p>
    {/if}
  {:else if race.isPending}
    <p role="status">{tell('raceStrip.reckoning_the_race')}</p>
  {/if}
  {#if chosen && drawn}
    <svg
      {width}
      height={PLAN}
      role="img"
      aria-label={tell('raceStrip.from_the_inside', { corner: called(chosen.corner) })}
    >
      <path d={drawn.left} fill="none" stroke="var(--road)" stroke-width="3" />
      <path d={drawn.right} fill="none" stroke="var(--road)" stroke-width="3" />
      <path d={drawn.line} fill="none" stroke="currentColor" stroke-width="2" />
    </svg>
    <p class="text-sm" data-inside>
      <strong>{tell('raceStrip.from_the_inside', { corner: called(chosen.corner) })}</strong>{tell(
        'raceStrip.brake_no_later_than_usual',
        {
          isChosen: chosen.metres < 1,
          chosen: metres(chosen.metres),
          slowest: speedText(chosen.slowest),
          usual: speedText(chosen.usual),
          seconds: signed(chosen.seconds, 2),
          until: metres(chosen.until),
        },
      )}
    </p>
  {:else if selected && inside.data}
    <p class="text-sm">{tell('raceStrip.no_way_to_come_alongside', { selected: called(selected) })}</p>
  {/if}
</div>

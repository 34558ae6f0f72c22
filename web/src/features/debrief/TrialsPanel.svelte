<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, ask, asProblem, type Corner, type LapLine, type Problem, type TrialView } from '../../api/api';
  import { lapTime, signed } from '../../words/units';
  import { cornerWord } from '../../words/words';
  import ProblemBox from '../../kit/ProblemBox.svelte';

  /** Two ways of one corner, laps marked A or B, and what they say. */
  interface Props {
    reference: string;
    corners: Corner[];
    laps: LapLine[];
    selected: string;
    mine: boolean;
  }
  let { reference, corners, laps, selected, mine }: Props = $props();
  const queries = useQueryClient();
  const key = $derived(['trials', reference]);
  const trials = createQuery(() => ({
    queryKey: key,
    queryFn: () => ask(api.GET('/api/references/{id}/trials', { params: { path: { id: reference } } })),
  }));
  let problem = $state.raw<Problem | null>(null);
  let wayA = $state('');
  let wayB = $state('');
  const counted = $derived(laps.filter((l) => l.counts && l.measured));

  async function act(what: Promise<unknown>) {
    problem = null;
    try {
      await what;
      await queries.invalidateQueries({ queryKey: key });
    } catch (e) {
      problem = asProblem(e);
    }
  }
  const mark = (t: TrialView, marks: Record<string, string>) =>
    act(ask(api.PUT('/api/trials/{id}/marks', { params: { path: { id: t.id } }, body: { marks } })));
  const next = (way: string | undefined) => (way === undefined ? 'A' : way === 'A' ? 'B' : '');
  const alternately = (t: TrialView) =>
    mark(t, { ...t.marks, ...Object.fromEntries(counted.map((l, i) => [l.id, i % 2 ? 'B' : 'A'])) });
  const W = 250;
  const place = (t: TrialView, v: number) => {
    const all = [...t.secondsA, ...t.secondsB];
    const low = Math.min(...all);
    const high = Math.max(...all, low + 0.05);
    return 14 + ((v - low) / (high - low)) * (W - 24);
  };
</script>

<div class="grid gap-3">
  {#if problem}<ProblemBox {problem} />{/if}
  {#each trials.data ?? [] as t (t.id)}
    {@const corner = corners.find((c) => c.id === t.corner)}
    <article class="border-base-300 grid gap-1 border-t pt-2" data-trial={t.corner}>
      <p class="flex items-baseline gap-3">
        <strong>{corner ? cornerWord(corner) : t.corner}</strong>
        <span class="flex-1">A: {t.wayA} · B: {t.wayB}</span>
        {#if mine}<button
            class="link text-sm"
            onclick={() => act(ask(api.DELETE('/api/trials/{id}', { params: { path: { id: t.id } } })))}>remove</button
          >{/if}
      </p>
      <div class="flex items-center gap-4">
        {#if t.secondsA.length + t.secondsB.length > 0}
          <svg width={W} height="48" role="img" aria-label="Seconds to the next corner, A above B">
            {#each t.secondsA as v, i (i)}<circle
                cx={place(t, v)}
                cy="13"
                r="4"
                fill="var(--ink)"
                opacity="0.7"
              />{/each}
            {#each t.secondsB as v, i (i)}<path
                d="M{place(t, v)} 29l5 5l-5 5l-5 -5z"
                fill="none"
                stroke="var(--throttle)"
                stroke-width="2"
              />{/each}
            <text x="0" y="17" font-weight="700">A</text>
            <text x="0" y="39" font-weight="700">B</text>
          </svg>
        {/if}
        <p class="flex-1" data-verdict>
          {t.verdict}
          {#if t.low !== null && t.low !== undefined}<span class="text-sm">
              B less A {signed(t.difference, 2)} s ({signed(t.low, 2)} to {signed(t.high ?? 0, 2)}), chance {signed(
                t.chance,
                2,
              ).replace('+', '')}</span
            >{/if}
        </p>
      </div>
      {#if mine}
        <p class="flex flex-wrap items-center gap-1 text-sm">
          Laps of this run:
          {#each counted as l (l.id)}
            <button
              class="btn btn-xs"
              aria-label="Lap {l.number}: {t.marks[l.id] ?? 'not marked'}"
              title={lapTime(l.lapTime)}
              data-mark={l.number}
              onclick={() => {
                const way = next(t.marks[l.id]);
                const marks = { ...t.marks, [l.id]: way };
                if (!way) delete marks[l.id];
                void mark(t, marks);
              }}>{l.number}{t.marks[l.id] ?? ''}</button
            >
          {/each}
          <button class="btn btn-xs" onclick={() => alternately(t)}>A and B alternately</button>
        </p>
      {/if}
    </article>
  {:else}
    <p>No trial yet. Plan two ways for a corner, drive them in turn, and let the laps decide.</p>
  {/each}
  {#if mine}
    <form
      class="border-base-300 flex flex-wrap items-end gap-2 border-t pt-2"
      onsubmit={(e) => {
        e.preventDefault();
        void act(
          ask(
            api.POST('/api/references/{id}/trials', {
              params: { path: { id: reference } },
              body: { corner: selected, wayA, wayB },
            }),
          ),
        ).then(() => {
          wayA = '';
          wayB = '';
        });
      }}
    >
      <span class="pb-1.5">
        At {cornerWord(corners.find((c) => c.id === selected) ?? { number: '', name: '' })}
      </span>
      <label class="grid flex-1 text-sm"
        >A<input class="input input-sm w-full" bind:value={wayA} maxlength="200" placeholder="one gear lower" /></label
      >
      <label class="grid flex-1 text-sm"
        >B<input class="input input-sm w-full" bind:value={wayB} maxlength="200" placeholder="as planned" /></label
      >
      <button class="btn btn-sm" disabled={!wayA.trim() || !wayB.trim() || !selected}>Plan a trial</button>
    </form>
  {/if}
</div>

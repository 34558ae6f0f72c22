<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, ask, asProblem, type LapLine, type Problem, type TrialView } from '../../api/api';
  import { catalogue } from '../../api/catalogue.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import TrialCard from './TrialCard.svelte';
  import { tell } from '../../words/tell';

  /** Trials of a reference, or of one session: drawn, driven, decided. */
  interface Props {
    reference: string;
    session?: string;
    length: number;
    laps?: LapLine[];
    mine: boolean;
  }
  let { reference, session, length, laps = [], mine }: Props = $props();
  const queries = useQueryClient();
  catalogue.load().catch(() => undefined);
  const trials = createQuery(() => ({
    queryKey: ['trials', session ?? reference],
    queryFn: () =>
      session
        ? ask(api.GET('/api/sessions/{id}/trials', { params: { path: { id: session } } }))
        : ask(api.GET('/api/references/{id}/trials', { params: { path: { id: reference } } })),
  }));
  const parameters = createQuery(() => ({
    queryKey: ['setup-parameters'],
    staleTime: Infinity,
    queryFn: () => ask(api.GET('/api/setup-parameters')),
  }));
  let problem = $state.raw<Problem | null>(null);

  async function act(what: Promise<unknown>) {
    problem = null;
    try {
      await what;
      await queries.invalidateQueries({ queryKey: ['trials'] });
    } catch (e) {
      problem = asProblem(e);
    }
  }
  const path = (t: TrialView) => ({ path: { id: t.id } });
  const mark = (t: TrialView, marks: Record<string, string>) =>
    act(ask(api.PUT('/api/trials/{id}/marks', { params: path(t), body: { marks } })));
  const take = (t: TrialView, way: 'A' | 'B' | null) =>
    act(
      way
        ? ask(api.POST('/api/trials/{id}/taken', { params: path(t), body: { way } }))
        : ask(api.DELETE('/api/trials/{id}/taken', { params: path(t) })),
    );
</script>

<div class="grid gap-3">
  {#if problem}<ProblemBox {problem} />{/if}
  {#each trials.data ?? [] as t (t.id)}
    <TrialCard
      trial={t}
      {length}
      parameters={parameters.data ?? []}
      {laps}
      {mine}
      onmark={(marks) => mark(t, marks)}
      ontake={(way) => take(t, way)}
      onremove={() => act(ask(api.DELETE('/api/trials/{id}', { params: path(t) })))}
    />
  {:else}
    {#if !session}
      <p>
        {tell('trialsPanel.no_trial_yet_two_ways')}
        <a class="link" href="#/session">{tell('trialsPanel.a_session')}</a>{tell('trialsPanel.there_you_see_how_many')}
      </p>
    {/if}
  {/each}
</div>

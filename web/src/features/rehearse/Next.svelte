<script lang="ts">
  import { replace } from 'svelte-spa-router';
  import { api, ask, asProblem, type EventView, type Problem } from '../../api/api';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { tell } from '../../words/tell';

  /** The way of work leads to the next session that has a reference. */
  let problem = $state.raw<Problem | null>(null);
  let none = $state(false);
  async function find() {
    try {
      const all = await ask(api.GET('/api/events'));
      const sessions = all.events.flatMap((e: EventView) => e.sessions).filter((s) => s.reference && !s.made);
      const now = Date.now();
      const next = sessions
        .filter((s) => Date.parse(s.ends) > now)
        .sort((a, b) => Date.parse(a.begins) - Date.parse(b.begins))[0];
      const last = sessions.sort((a, b) => Date.parse(b.begins) - Date.parse(a.begins))[0];
      const to = next ?? last;
      if (to) await replace(`/rehearse/${to.id}`);
      else none = true;
    } catch (e) {
      problem = asProblem(e);
    }
  }
  void find();
</script>

<main class="p-4">
  {#if problem}<ProblemBox {problem} />{/if}
  {#if none}
    <p>
      {tell('next.one_rehearses_for_a_session')}
      <a class="link" href="#/session">{tell('next.plan_the_next_one')}</a>{tell('next.with_the_reference_it_is')}
    </p>
  {/if}
</main>

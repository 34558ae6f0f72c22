<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, ask, asProblem, type Away, type Problem } from '../../api/api';
  import { basket } from '../../kit/basket.svelte';
  import { here } from '../../kit/here.svelte';
  import { session } from '../../api/session.svelte';
  import { size } from '../../words/units';
  import Preferred from '../../kit/Preferred.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';

  here.say('', '', null);
  const queries = useQueryClient();
  const used = createQuery(() => ({ queryKey: ['used'], queryFn: () => ask(api.GET('/api/account/used')) }));
  const away = createQuery(() => ({ queryKey: ['basket'], queryFn: () => ask(api.GET('/api/account/basket')) }));

  let problem = $state.raw<Problem | null>(null);
  let said = $state('');
  let before = $state('');
  let password = $state('');
  let leaving = $state('');
  let sure = $state(false);
  let link = $state('');

  const WORDS: Record<Away['sort'], string> = {
    REFERENCE: 'reference',
    LAYOUT: 'layout',
    VEHICLE: 'vehicle',
    RUN: 'run',
    PHOTO: 'picture',
  };
  const day = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' });
  const moment = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });
  const share = $derived(used.data ? used.data.bytes / used.data.bytesAllowed : 0);
  const runs = $derived(used.data ? used.data.runs / used.data.runsAllowed : 0);

  async function act(what: () => Promise<unknown>, then = '') {
    problem = null;
    said = '';
    try {
      await what();
      said = then;
      await queries.invalidateQueries();
    } catch (e) {
      problem = asProblem(e);
    }
  }

  const change = (event: SubmitEvent) => {
    event.preventDefault();
    return act(async () => {
      await ask(api.PUT('/api/account/password', { body: { before, password } }));
      before = password = '';
    }, 'The password is changed; other devices are signed out.');
  };
  const back = (a: Away) =>
    act(async () => {
      await ask(api.POST('/api/account/basket/back', { body: { sort: a.sort, id: a.id } }));
      if (basket.last?.id === a.id) basket.last = null;
    }, `${a.name} is back.`);
  const empty = () =>
    act(async () => {
      await ask(api.DELETE('/api/account/basket'));
      basket.last = null;
      sure = false;
    }, 'The basket is empty.');
  const invite = () =>
    act(async () => {
      const made = await ask(api.POST('/api/account/invitations'));
      link = `${location.origin}/#/join/${made.token}`;
    });
  const leave = (event: SubmitEvent) => {
    event.preventDefault();
    return act(async () => {
      await ask(api.POST('/api/account/leave', { body: { password: leaving } }));
      leaving = '';
      await session.load();
    });
  };
  const stay = () =>
    act(async () => {
      await ask(api.DELETE('/api/account/leave'));
      await session.load();
    }, 'Your account stays.');
</script>

{#snippet gauge(label: string, part: number, words: string)}
  <div class="grid gap-1" data-used={label}>
    <p class="flex justify-between"><span>{label}</span><span>{words}</span></p>
    <svg viewBox="0 0 300 14" class="h-4 w-full" preserveAspectRatio="none" aria-hidden="true">
      <rect width="300" height="14" fill="var(--road)" />
      <rect width={Math.min(1, part) * 300} height="14" fill={part >= 0.8 ? 'var(--brake)' : 'var(--ink)'} />
      <path d="M240 0V14" stroke="var(--color-base-100)" stroke-width="2" stroke-dasharray="3 2" />
    </svg>
  </div>
{/snippet}

<main class="mx-auto grid max-w-5xl gap-5 p-5">
  <h1 class="text-2xl font-bold">{session.person?.name ?? 'Account'}</h1>
  {#if problem}<ProblemBox {problem} />{/if}
  {#if said}<p role="status">{said}</p>{/if}
  {#if session.person?.leavesAt}
    <section class="border-error bg-base-100 flex flex-wrap items-center gap-3 rounded border p-4">
      <p class="flex-1">
        This account and all its things are deleted on {moment.format(new Date(session.person.leavesAt))}.
      </p>
      <button class="btn btn-primary" onclick={stay}>Keep my account</button>
    </section>
  {/if}
  <div class="grid items-start gap-5 md:grid-cols-2">
    <div class="grid gap-5">
      <section class="bg-base-100 border-base-300 flex flex-wrap items-center gap-2 rounded border p-4">
        <h2 class="w-full font-bold">Units and names</h2>
        <Preferred />
      </section>
      <section class="bg-base-100 border-base-300 grid gap-3 rounded border p-4">
        <h2 class="font-bold">What you keep here</h2>
        {#if used.data}
          {@render gauge('Space', share, `${size(used.data.bytes)} of ${size(used.data.bytesAllowed)}`)}
          {@render gauge('Runs in 24 hours', runs, `${used.data.runs} of ${used.data.runsAllowed}`)}
          {#if share >= 0.8 || runs >= 0.8}
            <p role="alert">
              More than 80 % is used. Put runs away that you no longer need, and empty the basket: it counts too.
            </p>
          {/if}
        {/if}
        <p>
          <a class="btn btn-sm" href="/api/account/everything.zip" download>Take all of it along</a>
          <span class="text-sm">a ZIP of JSON lines and your files as they came</span>
        </p>
      </section>
      <form class="bg-base-100 border-base-300 grid gap-2 rounded border p-4" onsubmit={change}>
        <h2 class="font-bold">Password</h2>
        <label class="grid gap-1"
          >The one you have
          <input
            class="input w-full"
            type="password"
            required
            maxlength="200"
            autocomplete="current-password"
            bind:value={before}
          /></label
        >
        <label class="grid gap-1"
          >The new one
          <input
            class="input w-full"
            type="password"
            required
            minlength="8"
            maxlength="72"
            autocomplete="new-password"
            bind:value={password}
          /></label
        >
        <div class="flex flex-wrap gap-2">
          <button class="btn">Change it</button>
          <button
            type="button"
            class="btn btn-ghost"
            onclick={() => act(() => ask(api.DELETE('/api/account/sessions')), 'Other devices are signed out.')}
            >Sign out everywhere else</button
          >
        </div>
      </form>
    </div>
    <div class="grid gap-5">
      <section class="bg-base-100 border-base-300 grid gap-2 rounded border p-4">
        <h2 class="font-bold">Basket</h2>
        {#each away.data ?? [] as a (a.id)}
          <p class="flex items-center gap-2" data-away={a.sort}>
            <span class="min-w-0 flex-1 truncate">{a.name} <span class="text-sm">({WORDS[a.sort]})</span></span>
            <span class="text-sm">until {day.format(new Date(a.until))}</span>
            <button class="btn btn-xs" onclick={() => back(a)}>Bring back</button>
          </p>
        {:else}
          <p>Nothing was put away.</p>
        {/each}
        {#if away.data?.length}
          {#if sure}
            <p>
              All of it is deleted for good. <button class="btn btn-xs btn-error" onclick={empty}>Delete</button>
              <button class="btn btn-xs" onclick={() => (sure = false)}>Keep</button>
            </p>
          {:else}
            <button class="btn btn-sm justify-self-start" onclick={() => (sure = true)}>Empty the basket</button>
          {/if}
        {/if}
      </section>
      <section class="bg-base-100 border-base-300 grid gap-2 rounded border p-4">
        <h2 class="font-bold">Bring somebody in</h2>
        <p class="text-sm">A link makes one account, within a week.</p>
        {#if link}<input class="input w-full" readonly aria-label="Link for one account" value={link} />{/if}
        <button class="btn btn-sm justify-self-start" onclick={invite}>Make a link</button>
      </section>
      {#if !session.person?.leavesAt}
        <form class="bg-base-100 border-base-300 grid gap-2 rounded border p-4" onsubmit={leave}>
          <h2 class="font-bold">Leave</h2>
          <p class="text-sm">
            Everything of yours is deleted a day after you ask, and not before; until then you can keep it. Remarks on
            others' references stay with them, without your name. Take all of it along first.
          </p>
          <label class="grid gap-1"
            >Your password
            <input
              class="input w-full"
              type="password"
              required
              maxlength="200"
              autocomplete="current-password"
              bind:value={leaving}
            /></label
          >
          <button class="btn btn-sm btn-error justify-self-start" disabled={!leaving}>Delete my account</button>
        </form>
      {/if}
    </div>
  </div>
</main>

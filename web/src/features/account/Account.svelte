<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, ask, asProblem, type Away, type Problem } from '../../api/api';
  import { basket } from '../../kit/basket.svelte';
  import { here } from '../../kit/here.svelte';
  import { session } from '../../api/session.svelte';
  import { size } from '../../words/units';
  import Preferred from '../../kit/Preferred.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { tell } from '../../words/tell';

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
    REFERENCE: tell('account.reference'),
    LAYOUT: tell('account.layout'),
    VEHICLE: tell('account.vehicle'),
    RUN: tell('account.run'),
    PHOTO: tell('account.picture'),
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
    }, tell('account.the_password_is_changed_other'));
  };
  const back = (a: Away) =>
    act(
      async () => {
        await ask(api.POST('/api/account/basket/back', { body: { sort: a.sort, id: a.id } }));
        if (basket.last?.id === a.id) basket.last = null;
      },
      tell('account.is_back', { name: a.name }),
    );
  const empty = () =>
    act(async () => {
      await ask(api.DELETE('/api/account/basket'));
      basket.last = null;
      sure = false;
    }, tell('account.the_basket_is_empty'));
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
    }, tell('account.your_account_stays'));
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
  <h1 class="text-2xl font-bold">{session.person?.name ?? tell('account.account')}</h1>
  {#if problem}<ProblemBox {problem} />{/if}
  {#if said}<p role="status">{said}</p>{/if}
  {#if session.person?.leavesAt}
    <section class="border-error bg-base-100 flex flex-wrap items-center gap-3 rounded border p-4">
      <p class="flex-1">
        {tell('account.this_account_and_all_its', { leavesAt: moment.format(new Date(session.person.leavesAt)) })}
      </p>
      <button class="btn btn-primary" onclick={stay}>{tell('account.keep_my_account')}</button>
    </section>
  {/if}
  <div class="grid items-start gap-5 md:grid-cols-2">
    <div class="grid gap-5">
      <section class="bg-base-100 border-base-300 flex flex-wrap items-center gap-2 rounded border p-4">
        <h2 class="w-full font-bold">{tell('account.units_and_names')}</h2>
        <Preferred />
      </section>
      <section class="bg-base-100 border-base-300 grid gap-3 rounded border p-4">
        <h2 class="font-bold">{tell('account.what_you_keep_here')}</h2>
        {#if used.data}
          {@render gauge(
            tell('account.space'),
            share,
            tell('account.of', { bytes: size(used.data.bytes), bytesAllowed: size(used.data.bytesAllowed) }),
          )}
          {@render gauge(
            tell('account.runs_in_24_hours'),
            runs,
            tell('account.of_2', { runs: used.data.runs, runsAllowed: used.data.runsAllowed }),
          )}
          {#if share >= 0.8 || runs >= 0.8}
            <p role="alert">
              {tell('account.more_than_80_is_used')}
            </p>
          {/if}
        {/if}
        <p>
          <a class="btn btn-sm" href="/api/account/everything.zip" download>{tell('account.take_all_of_it_along')}</a>
          <span class="text-sm">{tell('account.a_zip_of_json_lines')}</span>
        </p>
      </section>
      <form class="bg-base-100 border-base-300 grid gap-2 rounded border p-4" onsubmit={change}>
        <h2 class="font-bold">{tell('account.password')}</h2>
        <label class="grid gap-1"
          >{tell('account.the_one_you_have')}
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
          >{tell('account.the_new_one')}
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
          <button class="btn">{tell('account.change_it')}</button>
          <button
            type="button"
            class="btn btn-ghost"
            onclick={() =>
              act(() => ask(api.DELETE('/api/account/sessions')), tell('account.other_devices_are_signed_out'))}
            >{tell('account.sign_out_everywhere_else')}</button
          >
        </div>
      </form>
    </div>
    <div class="grid gap-5">
      <section class="bg-base-100 border-base-300 grid gap-2 rounded border p-4">
        <h2 class="font-bold">{tell('account.basket')}</h2>
        {#each away.data ?? [] as a (a.id)}
          <p class="flex items-center gap-2" data-away={a.sort}>
            <span class="min-w-0 flex-1 truncate">{a.name} <span class="text-sm">({WORDS[a.sort]})</span></span>
            <span class="text-sm">{tell('account.until', { until: day.format(new Date(a.until)) })}</span>
            <button class="btn btn-xs" onclick={() => back(a)}>{tell('account.bring_back')}</button>
          </p>
        {:else}
          <p>{tell('account.nothing_was_put_away')}</p>
        {/each}
        {#if away.data?.length}
          {#if sure}
            <p>
              {tell('account.all_of_it_is_deleted')}
              <button class="btn btn-xs btn-error" onclick={empty}>{tell('account.delete')}</button>
              <button class="btn btn-xs" onclick={() => (sure = false)}>{tell('account.keep')}</button>
            </p>
          {:else}
            <button class="btn btn-sm justify-self-start" onclick={() => (sure = true)}
              >{tell('account.empty_the_basket')}</button
            >
          {/if}
        {/if}
      </section>
      <section class="bg-base-100 border-base-300 grid gap-2 rounded border p-4">
        <h2 class="font-bold">{tell('account.bring_somebody_in')}</h2>
        <p class="text-sm">{tell('account.a_link_makes_one_account')}</p>
        {#if link}<input
            class="input w-full"
            readonly
            aria-label={tell('account.link_for_one_account')}
            value={link}
          />{/if}
        <button class="btn btn-sm justify-self-start" onclick={invite}>{tell('account.make_a_link')}</button>
      </section>
      {#if !session.person?.leavesAt}
        <form class="bg-base-100 border-base-300 grid gap-2 rounded border p-4" onsubmit={leave}>
          <h2 class="font-bold">{tell('account.leave')}</h2>
          <p class="text-sm">
            {tell('account.everything_of_yours_is_deleted')}
          </p>
          <label class="grid gap-1"
            >{tell('account.your_password')}
            <input
              class="input w-full"
              type="password"
              required
              maxlength="200"
              autocomplete="current-password"
              bind:value={leaving}
            /></label
          >
          <button class="btn btn-sm btn-error justify-self-start" disabled={!leaving}
            >{tell('account.delete_my_account')}</button
          >
        </form>
      {/if}
    </div>
  </div>
</main>

<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import LogOut from '@lucide/svelte/icons/log-out';
  import Moon from '@lucide/svelte/icons/moon';
  import Sun from '@lucide/svelte/icons/sun';
  import User from '@lucide/svelte/icons/user';
  import { router } from 'svelte-spa-router';
  import { api, ask } from '../api/api';
  import { here } from '../kit/here.svelte';
  import Preferred from '../kit/Preferred.svelte';
  import { session } from '../api/session.svelte';
  import { tell } from '../words/tell';

  const paddock = createQuery(() => ({ queryKey: ['paddock'], queryFn: () => ask(api.GET('/api/paddock')) }));

  const used = createQuery(() => ({
    queryKey: ['used'],
    queryFn: () => ask(api.GET('/api/account/used')),
    staleTime: 300_000,
  }));
  const full = $derived(
    !!used.data && (used.data.bytes >= 0.8 * used.data.bytesAllowed || used.data.runs >= 0.8 * used.data.runsAllowed),
  );

  const queries = useQueryClient();
  // A reference drafted since must be one click away from wherever one goes next.
  $effect(() => {
    if (router.location && !latest) void queries.invalidateQueries({ queryKey: ['paddock'] });
  });

  const latest = $derived(here.reference ?? paddock.data?.reference ?? null);
  const stops = $derived([
    { name: tell('topLine.paddock'), href: '#/', on: router.location === '/' },
    { name: tell('topLine.survey'), href: '#/survey', on: router.location.startsWith('/survey') },
    { name: tell('topLine.vehicle'), href: '#/vehicle', on: /^\/(vehicle|sheets)/.test(router.location) },
    {
      name: tell('topLine.reference'),
      href: latest ? `#/reference/${latest}` : null,
      on: /^\/(reference|card|whole)/.test(router.location),
    },
    { name: tell('topLine.session'), href: '#/session', on: /^\/(session|brief|log)/.test(router.location) },
    { name: tell('topLine.rehearse'), href: '#/rehearse', on: router.location.startsWith('/rehearse') },
    { name: tell('topLine.runs'), href: latest ? `#/runs/${latest}` : null, on: router.location.startsWith('/runs') },
    {
      name: tell('topLine.debrief'),
      href: latest ? (here.run ? `#/debrief/${here.run}` : `#/runs/${latest}`) : null,
      on: router.location.startsWith('/debrief'),
    },
    {
      name: tell('topLine.revisions'),
      href: latest ? `#/revisions/${latest}` : null,
      on: router.location.startsWith('/revisions'),
    },
  ]);

  const person = $derived(session.person);

  let unsent = $state(0);
  /** What was said without a connection is gone with whoever said it: they are told before. */
  async function signOut(anyway: boolean) {
    const shelves = [
      (await import('../features/session/log')).browserLog(),
      (await import('../features/session/spoken')).browserSounds(),
      (await import('../features/rehearse/rehearse')).browserAnswers(),
    ];
    unsent = 0;
    if (!anyway) for (const shelf of shelves) unsent += await shelf.waiting();
    if (unsent) return;
    await session.signOut();
    for (const shelf of shelves) await shelf.clear();
  }
</script>

<header
  class="no-print border-base-300 flex flex-wrap items-center gap-x-4 border-b px-5 py-1 lg:h-14 lg:flex-nowrap lg:py-0"
>
  <a href="#/" class="text-xl font-bold">{tell('topLine.marvek')}</a>
  <nav
    aria-label={tell('topLine.way_of_work')}
    class="relative order-last w-full flex-none overflow-x-auto lg:order-none lg:w-auto"
  >
    <span class="bg-base-300 absolute top-[9px] right-8 left-8 hidden h-[3px] lg:block" aria-hidden="true"></span>
    <ol class="relative flex w-max">
      {#each stops as stop (stop.name)}
        <li class="w-[66px] text-center text-sm">
          {#snippet bead()}
            <span
              class={[
                'border-base-content mx-auto mb-0.5 block size-3 rounded-full border-2',
                stop.on ? 'bg-base-content scale-125' : 'bg-base-200',
              ]}
            ></span>
            {stop.name}
          {/snippet}
          {#if stop.href}
            <a
              href={stop.href}
              class={['block pt-1', stop.on ? 'font-bold' : '']}
              aria-current={stop.on ? 'page' : undefined}
            >
              {@render bead()}
            </a>
          {:else}
            <span class="block pt-1 opacity-60" aria-disabled="true" title={tell('topLine.draft_a_reference_first')}>
              {@render bead()}
            </span>
          {/if}
        </li>
      {/each}
    </ol>
  </nav>
  <p class="min-w-0 flex-1 text-right text-sm leading-tight">
    {#if here.title}
      <span class="block truncate font-semibold">{here.title}</span>
      <span class="block truncate">{here.detail}</span>
    {/if}
  </p>
  {#if person}
    <div class="flex items-center gap-2">
      <span class="hidden items-center gap-2 lg:flex"><Preferred /></span>
      <button
        class="btn btn-sm btn-square btn-ghost"
        aria-label={tell('topLine.paper_look_dusk_look', { isDusk: person.theme === 'DUSK' })}
        onclick={() => session.prefer({ theme: person.theme === 'DUSK' ? 'PAPER' : 'DUSK' })}
      >
        {#if person.theme === 'DUSK'}<Sun class="size-4" />{:else}<Moon class="size-4" />{/if}
      </button>
      <a
        class={['btn btn-sm btn-square btn-ghost relative', router.location === '/account' ? 'btn-active' : '']}
        href="#/account"
        aria-label={tell('topLine.account_of', { name: person.name })}
        title={tell('topLine.account_of_more_than_80', { name: person.name, hasFull: !!full })}
      >
        <User class="size-4" />
        {#if full || person.leavesAt}<span class="bg-error absolute top-1 right-1 size-2 rounded-full"></span>{/if}
      </a>
      <button
        class="btn btn-sm btn-square btn-ghost"
        aria-label={tell('topLine.sign_out', { name: person.name })}
        title={tell('topLine.sign_out', { name: person.name })}
        onclick={() => signOut(false)}
      >
        <LogOut class="size-4" />
      </button>
      {#if unsent}
        <span class="flex items-center gap-2" role="alert">
          {tell('topLine.said_or_answered_is_are', { unsent })}
          <button class="btn btn-sm" onclick={() => signOut(true)}
            >{tell('topLine.sign_out_and_lose_it', { unsent })}</button
          >
          <button class="btn btn-sm" onclick={() => (unsent = 0)}>{tell('topLine.stay')}</button>
        </span>
      {/if}
    </div>
  {/if}
</header>

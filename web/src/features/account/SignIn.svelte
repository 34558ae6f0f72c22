<script lang="ts">
  import { api, ask, asProblem, type Problem } from '../../api/api';
  import { replace, router } from 'svelte-spa-router';
  import { session } from '../../api/session.svelte';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { tell } from '../../words/tell';

  // A link that works once: to make an account, or to set a password anew.
  const link = $derived(/^\/(join|password)\/(.+)$/.exec(router.location));
  const reset = $derived(link?.[1] === 'password' ? link[2] : undefined);
  const invitation = $derived(link?.[1] === 'join' ? link[2] : undefined);
  let chosen = $state<boolean | null>(null);
  const fresh = $derived(chosen ?? !!invitation);
  const may = $derived(session.open || !!invitation);
  let name = $state('');
  let email = $state('');
  let password = $state('');
  let busy = $state(false);
  let problem = $state<Problem | null>(null);

  async function enter(call: () => Promise<{ person?: typeof session.person; demo: boolean; open: boolean }>) {
    busy = true;
    problem = null;
    try {
      const view = await call();
      session.take({ ...view, person: view.person ?? undefined });
      if (link) await replace('/');
    } catch (e) {
      problem = asProblem(e);
    } finally {
      busy = false;
    }
  }

  const demo = (person: 'DRIVER' | 'COACH') => enter(() => ask(api.POST('/api/session/demo', { body: { person } })));

  function submit(event: SubmitEvent) {
    event.preventDefault();
    void enter(() =>
      reset
        ? ask(api.POST('/api/session/password', { body: { link: reset, password } }))
        : fresh
          ? ask(api.POST('/api/accounts', { body: { email, name, password, ...(invitation ? { invitation } : {}) } }))
          : ask(api.POST('/api/session', { body: { email, password } })),
    );
  }
</script>

<main class="mx-auto grid min-h-screen max-w-5xl content-center gap-10 p-6 md:grid-cols-[1.2fr_1fr]">
  <section>
    <h1 class="mb-2 text-4xl font-bold">{tell('signIn.marvek')}</h1>
    <p class="mb-6 max-w-prose text-lg">
      {tell('signIn.build_your_own_corner_by')}
    </p>
    <svg viewBox="0 0 560 190" class="w-full" role="img" aria-label={tell('signIn.a_corner_unrolled_braking_flag')}>
      <path d="M0 60H560V130H0Z" fill="var(--road)" />
      <path d="M0 60H560M0 130H560" stroke="var(--road-edge)" stroke-width="2" />
      <path
        d="M0 72H270C330 74 330 122 375 122C420 122 440 76 560 72"
        fill="none"
        stroke="var(--line)"
        stroke-width="3"
      />
      <path d="M172 58h20l-10 15z" fill="var(--brake)" />
      <path d="M182 73V160" stroke="var(--brake)" stroke-width="1.5" />
      <path d="M375 113l9 9-9 9-9-9z" fill="var(--color-base-100)" stroke="var(--ink)" stroke-width="2" />
      <path d="M375 131V160" stroke="var(--ink)" stroke-width="1.5" />
      <circle cx="455" cy="86" r="7" fill="var(--throttle)" />
      <path d="M455 93V160" stroke="var(--throttle)" stroke-width="1.5" />
      <g fill="var(--color-base-100)" stroke="var(--ink)">
        <path d="M148 60V40M248 60V40" /><rect x="132" y="24" width="32" height="17" /><rect
          x="234"
          y="24"
          width="28"
          height="17"
        />
      </g>
      <text x="148" y="37" text-anchor="middle">100</text><text x="248" y="37" text-anchor="middle">50</text>
      <text x="182" y="176" text-anchor="middle">{tell('signIn.100_board_8_m')}</text>
      <text x="375" y="176" text-anchor="middle">{tell('signIn.late_apex')}</text><text
        x="455"
        y="176"
        text-anchor="middle">{tell('signIn.full')}</text
      >
    </svg>
    <p class="mt-6 max-w-prose text-sm">
      {tell('signIn.motor_sport_is_dangerous_every')}
    </p>
  </section>
  <section class="bg-base-100 border-base-300 self-center rounded border p-6">
    {#if session.demo}
      <h2 class="mb-2 font-bold">{tell('signIn.look_round_the_demo')}</h2>
      <div class="mb-6 flex gap-2">
        <button class="btn btn-primary flex-1" disabled={busy} onclick={() => demo('DRIVER')}
          >{tell('signIn.demo_driver')}</button
        >
        <button class="btn flex-1" disabled={busy} onclick={() => demo('COACH')}>{tell('signIn.demo_coach')}</button>
      </div>
    {/if}
    <h2 class="mb-2 font-bold">{tell('signIn.set_a_new_password_make', { hasReset: !!reset, hasFresh: !!fresh })}</h2>
    <form class="grid gap-3" onsubmit={submit}>
      {#if fresh && !reset}
        <label class="grid gap-1">
          {tell('signIn.your_name')}
          <input class="input w-full" bind:value={name} required maxlength="100" autocomplete="name" />
        </label>
      {/if}
      {#if !reset}
        <label class="grid gap-1">
          {tell('signIn.e_mail_address')}
          <input class="input w-full" type="email" bind:value={email} required autocomplete="username" />
        </label>
      {/if}
      <label class="grid gap-1">
        {tell('signIn.password')}
        <input
          class="input w-full"
          type="password"
          bind:value={password}
          required
          minlength={fresh || reset ? 8 : undefined}
          maxlength={fresh || reset ? 72 : 200}
          autocomplete={fresh || reset ? 'new-password' : 'current-password'}
        />
        {#if fresh || reset}<span class="text-sm">{tell('signIn.8_characters_or_more_a')}</span>{/if}
      </label>
      {#if problem}<ProblemBox {problem} />{/if}
      <button class={['btn', session.demo ? '' : 'btn-primary']} disabled={busy}>
        {tell('signIn.set_it_and_sign_in', { hasReset: !!reset, hasFresh: !!fresh })}
      </button>
    </form>
    {#if reset}
      <a class="btn btn-link mt-3 px-0" href="#/">{tell('signIn.sign_in_with_the_password')}</a>
    {:else if may || fresh}
      <button class="btn btn-link mt-3 px-0" onclick={() => (chosen = !fresh)}>
        {tell('signIn.i_have_an_account_i', { hasFresh: !!fresh })}
      </button>
    {:else}
      <p class="mt-3 text-sm">
        {tell('signIn.accounts_are_made_by_invitation')}
      </p>
    {/if}
  </section>
</main>

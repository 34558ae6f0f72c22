<script lang="ts">
  import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
  import { onMount } from 'svelte';
  import Router, { replace, router, type RouteDefinition } from 'svelte-spa-router';
  import wrap from 'svelte-spa-router/wrap';
  import { asProblem, type Problem } from './lib/api';
  import { session } from './lib/session.svelte';
  import BasketNote from './components/BasketNote.svelte';
  import KeysHelp from './components/KeysHelp.svelte';
  import ProblemBox from './components/ProblemBox.svelte';
  import TopLine from './components/TopLine.svelte';
  import SignIn from './screens/SignIn.svelte';
  import Paddock from './screens/Paddock.svelte';

  const routes: RouteDefinition = {
    '/': Paddock,
    '/survey': wrap({ asyncComponent: () => import('./screens/Survey.svelte') }),
    '/survey/bring': wrap({ asyncComponent: () => import('./screens/Bring.svelte') }),
    '/survey/:id': wrap({ asyncComponent: () => import('./screens/Layout.svelte') }),
    '/walk/:id': wrap({ asyncComponent: () => import('./screens/Walk.svelte') }),
    '/vehicle': wrap({ asyncComponent: () => import('./screens/Garage.svelte') }),
    '/vehicle/:id': wrap({ asyncComponent: () => import('./screens/VehicleEditor.svelte') }),
    '/sheets/:id': wrap({ asyncComponent: () => import('./screens/Sheets.svelte') }),
    '/reference/:id': wrap({ asyncComponent: () => import('./screens/Reference.svelte') }),
    '/recompute/:id': wrap({ asyncComponent: () => import('./screens/Recompute.svelte') }),
    '/revisions/:id': wrap({ asyncComponent: () => import('./screens/Revisions.svelte') }),
    '/runs/:id': wrap({ asyncComponent: () => import('./screens/Runs.svelte') }),
    '/debrief/:id': wrap({ asyncComponent: () => import('./screens/Debrief.svelte') }),
    '/whole/:id': wrap({ asyncComponent: () => import('./screens/Whole.svelte') }),
    '/account': wrap({ asyncComponent: () => import('./screens/Account.svelte') }),
    '/card/:id/:revision': wrap({ asyncComponent: () => import('./screens/Card.svelte') }),
    '*': Paddock,
  };

  const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 0 } } });
  let problem = $state<Problem | null>(null);

  onMount(async () => {
    try {
      await session.load();
    } catch (e) {
      problem = asProblem(e);
    }
  });

  $effect(() => {
    if (session.known && !session.person) {
      queries.clear();
      if (router.location !== '/' && !/^\/(join|password)\//.test(router.location)) void replace('/');
    }
  });
</script>

<QueryClientProvider client={queries}>
  {#if problem}
    <main class="mx-auto max-w-xl p-8"><ProblemBox {problem} /></main>
  {:else if !session.known}
    <p class="p-8" role="status">Opening…</p>
  {:else if !session.person}
    <SignIn />
  {:else}
    {#if !router.location.startsWith('/walk')}<TopLine /><BasketNote />{/if}
    <Router {routes} />
    <KeysHelp />
  {/if}
</QueryClientProvider>

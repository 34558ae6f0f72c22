<script lang="ts">
  import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
  import { onMount } from 'svelte';
  import Router, { replace, router, type RouteDefinition } from 'svelte-spa-router';
  import wrap from 'svelte-spa-router/wrap';
  import { asProblem, type Problem } from '../api/api';
  import { session } from '../api/session.svelte';
  import BasketNote from '../kit/BasketNote.svelte';
  import KeysHelp from './KeysHelp.svelte';
  import ProblemBox from '../kit/ProblemBox.svelte';
  import TopLine from './TopLine.svelte';
  import SignIn from '../features/account/SignIn.svelte';
  import Paddock from '../features/paddock/Paddock.svelte';
  import { tell } from '../words/tell';

  const routes: RouteDefinition = {
    '/': Paddock,
    '/survey': wrap({ asyncComponent: () => import('../features/survey/Survey.svelte') }),
    '/survey/bring': wrap({ asyncComponent: () => import('../features/survey/Bring.svelte') }),
    '/survey/:id': wrap({ asyncComponent: () => import('./Layout.svelte') }),
    '/walk/:id': wrap({ asyncComponent: () => import('../features/walk/Walk.svelte') }),
    '/vehicle': wrap({ asyncComponent: () => import('../features/vehicle/Garage.svelte') }),
    '/vehicle/:id': wrap({ asyncComponent: () => import('../features/vehicle/VehicleEditor.svelte') }),
    '/sheets/:id': wrap({ asyncComponent: () => import('../features/vehicle/Sheets.svelte') }),
    '/reference/:id': wrap({ asyncComponent: () => import('../features/reference/Reference.svelte') }),
    '/recompute/:id': wrap({ asyncComponent: () => import('../features/reference/Recompute.svelte') }),
    '/revisions/:id': wrap({ asyncComponent: () => import('../features/revisions/Revisions.svelte') }),
    '/session': wrap({ asyncComponent: () => import('../features/session/Sessions.svelte') }),
    '/session/:id': wrap({ asyncComponent: () => import('../features/session/Session.svelte') }),
    '/brief/:id': wrap({ asyncComponent: () => import('../features/session/Brief.svelte') }),
    '/log/:id': wrap({ asyncComponent: () => import('../features/session/Log.svelte') }),
    '/rehearse': wrap({ asyncComponent: () => import('../features/rehearse/Next.svelte') }),
    '/rehearse/:id': wrap({ asyncComponent: () => import('../features/rehearse/Rehearse.svelte') }),
    '/runs/:id': wrap({ asyncComponent: () => import('../features/runs/Runs.svelte') }),
    '/debrief/:id': wrap({ asyncComponent: () => import('../features/debrief/Debrief.svelte') }),
    '/whole/:id': wrap({ asyncComponent: () => import('../features/reference/Whole.svelte') }),
    '/account': wrap({ asyncComponent: () => import('../features/account/Account.svelte') }),
    '/card/:id/:revision': wrap({ asyncComponent: () => import('../features/reference/Card.svelte') }),
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
    <p class="p-8" role="status">{tell('app.opening')}</p>
  {:else if !session.person}
    <SignIn />
  {:else}
    {#if !/^\/(walk|brief|log)/.test(router.location)}<TopLine /><BasketNote />{/if}
    <Router {routes} />
    <KeysHelp />
  {/if}
</QueryClientProvider>

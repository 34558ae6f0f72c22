<script lang="ts">
  import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
  import type { Component } from 'svelte';

  /** What every screen stands in: a place for what the server has said. */
  interface Props {
    shown: Component<Record<string, unknown>>;
    given: Record<string, unknown>;
  }
  let { shown: Shown, given }: Props = $props();
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
</script>

<QueryClientProvider {client}>
  <Shown {...given} />
</QueryClientProvider>

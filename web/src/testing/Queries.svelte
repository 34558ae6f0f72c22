<script lang="ts">
  import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
  import type { Component } from 'svelte';

  /** A component that asks questions, with a client of its own that asks each once. */
  let { of: Of, given }: { of: Component<Record<string, unknown>>; given: Record<string, unknown> } = $props();
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
</script>

<QueryClientProvider {client}><Of {...given} /></QueryClientProvider>

<script lang="ts">
  import type { AnswerView, LaidView } from '../api/api';
  import type { CornerView } from './cornerView.svelte';
  import { pathOf } from './strip';

  /** The line that is driven, and behind it the same corner otherwise and the line laid anew. */
  interface Props {
    view: CornerView;
    under?: AnswerView | null;
    laid?: LaidView | null;
  }
  let { view, under = null, laid = null }: Props = $props();
  const behind = $derived(view.behind(under));
  const anew = $derived(view.anew(laid));
</script>

{#if behind}
  <path
    d={pathOf(behind.line)}
    fill="none"
    stroke="var(--ink-soft)"
    stroke-width="1.6"
    stroke-dasharray="5 4"
    data-under
  />
  <path d={pathOf(behind.speed)} fill="none" stroke="var(--ink-soft)" stroke-width="1.4" stroke-dasharray="5 4" />
{/if}
{#if anew.length}
  <path
    d={pathOf(anew)}
    fill="none"
    stroke="var(--line)"
    stroke-width="2"
    stroke-dasharray="2 5"
    stroke-linecap="round"
    data-laid-anew
  />
{/if}
<path d={pathOf(view.path)} fill="none" stroke="var(--line)" stroke-width="2.5" clip-path="url(#strip-window)" />

<script lang="ts">
  import type { AnswerView, CornerEntry } from '../api/api';
  import { inSpeed, plain, speedUnit } from '../words/units';
  import { PADS, SPEED, type CornerView } from './cornerView.svelte';
  import { station } from './points';
  import { pathOf } from './strip';

  /** Speed through a corner, told where it is braked for and where it is least. */
  interface Props {
    view: CornerView;
    entry: CornerEntry;
    answer?: AnswerView;
  }
  let { view, entry, answer }: Props = $props();

  const marker = $derived.by(() => {
    const s = station(entry, 'BRAKE');
    return s === undefined ? null : view.near(s);
  });
  const arrives = $derived(view.valueAt('speed', marker ?? view.domain[0] + 5));
  const low = $derived(answer ? view.near(answer.answer.minimumStation) : view.apex);
</script>

<path d={pathOf(view.curve('speed', view.speedY))} fill="none" stroke="var(--ink)" stroke-width="1.8" />
{#if arrives !== null}
  <text x={Math.max(PADS, view.x(marker ?? view.domain[0]) - 30)} y={view.speedY(arrives) - 5} font-weight="700"
    >{plain(inSpeed(arrives))}</text
  >
{/if}
<text
  x={view.x(low)}
  y={Math.min(view.speedTop + SPEED + 2, view.speedY(view.valueAt('speed', low) ?? 0) + 14)}
  text-anchor="middle"
  font-weight="700"
>
  {plain(inSpeed(answer?.answer.minimumSpeed ?? 0))}
  {speedUnit()}
</text>

<script lang="ts">
  import { push } from 'svelte-spa-router';
  import { api, ask, asProblem, type LayoutView, type Problem } from '../../api/api';
  import { degrees, metres } from '../../words/units';
  import ProblemBox from '../../kit/ProblemBox.svelte';

  // Corners and apexes that are found on the road today and that this version, made earlier, lacks.
  let { view }: { view: LayoutView } = $props();

  let problem = $state<Problem | null>(null);
  let busy = $state(false);
  const added = $derived(view.anew.added);
  const apexes = $derived(view.anew.apexes.length);
  const said = $derived(
    [
      added.length
        ? `${added.length} ${added.length === 1 ? 'corner' : 'corners'} more (${added
            .map(
              (c) =>
                `${c.number}: ${c.left ? 'left' : 'right'}, ${Math.round(degrees(c.angle))}° of ${metres(c.radius)} radius`,
            )
            .join('; ')})`
        : '',
      apexes ? `another place for ${apexes} ${apexes === 1 ? 'apex' : 'apexes'}` : '',
    ]
      .filter(Boolean)
      .join(' and '),
  );

  async function start() {
    busy = true;
    try {
      const made = await ask(
        api.POST('/api/layouts/{id}/versions', {
          params: { path: { id: view.summary.id } },
          body: {
            from: new Date().toISOString().slice(0, 10),
            reason: 'Corners found anew',
            changes: [],
            anew: true,
          },
        }),
      );
      await push(`/survey/${made.id}`);
    } catch (e) {
      problem = asProblem(e);
    }
    busy = false;
  }
</script>

{#if said && !view.newer}
  <p class="text-sm" data-anew>
    As corners are found today, this road has {said}.
    <button class="link" disabled={busy} onclick={start}>Take it into version {view.summary.version + 1}</button>
    Numbers and names stay; references come over when you ask them to.
  </p>
{/if}
{#if problem}<ProblemBox {problem} />{/if}

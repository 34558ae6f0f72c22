<script lang="ts">
  import { push } from 'svelte-spa-router';
  import { api, ask, asProblem, type LayoutView, type Problem } from '../../api/api';
  import { degrees, metres } from '../../words/units';
  import ProblemBox from '../../kit/ProblemBox.svelte';
  import { tell } from '../../words/tell';

  // Corners and apexes that are found on the road today and that this version, made earlier, lacks.
  let { view }: { view: LayoutView } = $props();

  let problem = $state<Problem | null>(null);
  let busy = $state(false);
  const added = $derived(view.anew.added);
  const apexes = $derived(view.anew.apexes.length);
  const said = $derived(
    [
      added.length
        ? tell('anewNote.corner_corners_more', {
            added: added.length,
            radius: added
              .map((c) =>
                tell('anewNote.left_right_of_radius', {
                  number: c.number,
                  hasLeft: !!c.left,
                  angle: Math.round(degrees(c.angle)),
                  radius: metres(c.radius),
                }),
              )
              .join('; '),
          })
        : '',
      apexes ? tell('anewNote.another_place_for_apex_apexes', { apexes }) : '',
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
            reason: tell('anewNote.corners_found_anew'),
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
    {tell('anewNote.as_corners_are_found_today', { said })}
    <button class="link" disabled={busy} onclick={start}
      >{tell('anewNote.take_it_into_version', { version: view.summary.version + 1 })}</button
    >
    {tell('anewNote.numbers_and_names_stay_references')}
  </p>
{/if}
{#if problem}<ProblemBox {problem} />{/if}

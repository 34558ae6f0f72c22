<script lang="ts">
  import SurveyWork from '../features/survey/SurveyWork.svelte';

  let { params }: { params: { id: string } } = $props();
</script>

<!-- Another layout is another piece of work, with its own undo and its own changes on the way. -->
{#key params.id}
  <SurveyWork id={params.id} />
{/key}

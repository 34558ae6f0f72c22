<script lang="ts">
  import { asProblem, type Problem, type Job } from '../api/api';
  import { cancel } from '../api/jobs';
  import { tell } from '../words/tell';

  /** How far heavy work is, and a way out of it. */
  interface Props {
    job: Job;
    /** What is being done, as one would say. */
    words?: string;
    onproblem?: (problem: Problem) => void;
  }
  let { job, words = tell('jobNote.searching_the_quickest_line'), onproblem }: Props = $props();
  let leaving = $state(false);
  async function leave() {
    leaving = true;
    try {
      await cancel(job.id);
    } catch (e) {
      onproblem?.(asProblem(e));
    } finally {
      leaving = false;
    }
  }
</script>

<div class="flex items-center gap-3" role="status" data-job={job.state}>
  <span>{tell('jobNote.others_are_computed_first', { isWaiting: job.state === 'WAITING', words })}</span>
  <progress class="progress progress-primary w-40" value={job.share} max="1" aria-label={words}></progress>
  <button type="button" class="btn btn-sm" disabled={leaving} onclick={leave}>{tell('jobNote.cancel')}</button>
</div>

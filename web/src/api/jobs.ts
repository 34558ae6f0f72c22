import { api, ask, Problem, type Job } from './api';

const ASK_EVERY = 300;

/**
 * Follows a job for a line to its end.
 *
 * @param started what the server said when it was started
 * @param onshare is told how far it is, as a share of the most it may take
 * @returns the job as it ended; null when it was cancelled
 */
export async function end(started: Job, onshare: (job: Job) => void): Promise<Job | null> {
  let job = started;
  while (job.state === 'WAITING' || job.state === 'WORKING') {
    onshare(job);
    await new Promise((done) => setTimeout(done, ASK_EVERY));
    job = await ask(api.GET('/api/jobs/{id}', { params: { path: { id: job.id } } }));
  }
  if (job.state === 'FAILED')
    throw new Problem(500, job.problem ?? 'The computation failed.', null, job.remedy ?? 'Try again.');
  return job.state === 'DONE' ? job : null;
}

/** Follows a job to its end, and gives the id of what it made; null when it was cancelled. */
export const follow = async (started: Job, onshare: (job: Job) => void): Promise<string | null> =>
  (await end(started, onshare))?.made ?? null;

export const cancel = (id: string) => ask(api.DELETE('/api/jobs/{id}', { params: { path: { id } } }));

import { api, ask, Problem, type Search } from './api';

const ASK_EVERY = 300;

/**
 * Follows a search for a line to its end.
 *
 * @param started what the server said when it was started
 * @param onshare is told how far it is, as a share of the most it may take
 * @returns the reference that it is for; null when it was cancelled
 */
export async function follow(started: Search, onshare: (search: Search) => void): Promise<string | null> {
  let search = started;
  while (search.state === 'WAITING' || search.state === 'SEARCHING') {
    onshare(search);
    await new Promise((done) => setTimeout(done, ASK_EVERY));
    search = await ask(api.GET('/api/searches/{id}', { params: { path: { id: search.id } } }));
  }
  if (search.state === 'FAILED')
    throw new Problem(500, search.problem ?? 'The computation failed.', null, search.remedy ?? 'Try again.');
  return search.state === 'DONE' ? (search.reference ?? null) : null;
}

export const cancel = (id: string) => ask(api.DELETE('/api/searches/{id}', { params: { path: { id } } }));

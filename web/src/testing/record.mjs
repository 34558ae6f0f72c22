/**
 * Records what the server says of the demo, for tests of whole screens: node src/testing/record.mjs URL.
 * Long columns are thinned, everything else stands as it was said.
 */
/* global process */
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const base = process.argv[2] ?? 'http://127.0.0.1:8080';
const cookies = new Map();
async function call(method, path, body) {
  const answer = await fetch(base + path, {
    method,
    headers: {
      cookie: [...cookies].map(([k, v]) => `${k}=${v}`).join('; '),
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      'X-XSRF-TOKEN': cookies.get('XSRF-TOKEN') ?? '',
    },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  for (const cookie of answer.headers.getSetCookie()) {
    const [pair] = cookie.split(';');
    const at = pair.indexOf('=');
    cookies.set(pair.slice(0, at), pair.slice(at + 1));
  }
  if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status}`);
  return answer.json();
}

const said = {};
const get = async (path) => (said[path.replace(/\?.*/, '')] = await call('GET', path));
const post = async (path, body) => (said[`POST ${path}`] = await call('POST', path, body));

/** Every eighth value of columns that are drawn, at a step that is longer by as much. */
function thinned(view) {
  const out = { ...view, step: view.step * 8 };
  for (const [k, v] of Object.entries(view))
    if (Array.isArray(v) && v.length > 400 && typeof v[0] === 'number') out[k] = v.filter((_, i) => i % 8 === 0);
  return out;
}

await get('/api/session').catch(() => call('GET', '/api/session'));
await call('POST', '/api/session/demo', { person: 'DRIVER' });
said['/api/session'] = await call('GET', '/api/session');
const [reference] = await get('/api/references');
const id = reference.id;
const layout = reference.layoutId;
for (const path of ['paddock', 'layouts', 'vehicles', 'vehicle-classes', 'setup-parameters', 'catalogue', 'channels'])
  await get(`/api/${path}`);
for (const path of ['account/used', 'account/basket', 'events', `layouts/${layout}`]) await get(`/api/${path}`);
for (const path of ['', '/overview', '/revisions', '/history', '/runs', '/markers', '/kerbs', '/remarks', '/pace'])
  await get(`/api/references/${id}${path}`);
for (const path of [`references/${id}/road?step=10`, `layouts/${layout}/road?step=10`]) await get(`/api/${path}`);
said[`/api/references/${id}/lap`] = thinned(await call('GET', `/api/references/${id}/lap`));
const vehicle = said[`/api/references/${id}`].vehicleId;
for (const path of ['', '/sheets']) await get(`/api/vehicles/${vehicle}${path}`);
said['POST /api/vehicles/figures'] = await call(
  'POST',
  '/api/vehicles/figures',
  said[`/api/vehicles/${vehicle}`].numbers,
);
const { runs } = said[`/api/references/${id}/runs`];
const run = runs.find((r) => r.name === 'First session');
for (const path of ['debrief', 'proposals']) await get(`/api/runs/${run.id}/${path}`);
const proposed = said[`/api/runs/${run.id}/proposals`];
proposed.proposals = proposed.proposals.filter((p) => p.change).slice(0, 6);
const [older, newer] = said[`/api/references/${id}/revisions`].map((r) => r.number).sort((a, b) => a - b);
await get(`/api/references/${id}/revisions/${newer}`);
await get(`/api/references/${id}/comparison?from=${older}&to=${newer}`);
const entry = said[`/api/references/${id}`].working.content.corners[0];
await post(`/api/references/${id}/answer`, entry);

writeFileSync(
  fileURLToPath(new URL('weekend.json', import.meta.url)),
  JSON.stringify({ id, layout, vehicle, run: run.id, said }, (_, v) =>
    typeof v === 'number' && !Number.isInteger(v) ? Number(v.toPrecision(7)) : v,
  ) + '\n',
);

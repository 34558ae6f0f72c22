// Throws what nobody should send at a running demo, and looks whether it bears it:
//   node bench/torture.mjs http://127.0.0.1:8080 [requests] [seed]
// Bounded, and only on this machine. Ends with 1 where anything was answered with 5xx, or not within 5 s.
import { readFileSync } from 'node:fs';

const base = process.argv[2] ?? 'http://127.0.0.1:8080';
const requests = Number(process.argv[3] ?? 10_000);
let seed = Number(process.argv[4] ?? 1);
const REAL = process.argv[5] !== 'quiet';
if (!/^http:\/\/(127\.0\.0\.1|localhost)(:|\/|$)/.test(base)) throw new Error('only this machine is tortured');
const LONGEST = 5000;

/** Mulberry32: the same seed, the same torture. */
function chance() {
  seed = (seed + 0x6d2b79f5) | 0;
  let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
  return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
}
const below = (n) => Math.floor(chance() * n);
const one = (list) => list[below(list.length)];

class Person {
  jar = new Map();
  async raw(method, path, body, type) {
    const headers = {
      cookie: [...this.jar].map(([k, v]) => `${k}=${v}`).join('; '),
      'X-XSRF-TOKEN': this.jar.get('XSRF-TOKEN') ?? '',
    };
    if (type) headers['content-type'] = type;
    const began = performance.now();
    const response = await fetch(base + path, { method, headers, body, signal: AbortSignal.timeout(60_000) });
    for (const line of response.headers.getSetCookie()) {
      const [, name, value] = /^([^=]+)=([^;]*)/.exec(line);
      this.jar.set(name, value);
    }
    const text = await response.text();
    return { status: response.status, text, took: performance.now() - began };
  }
  async call(method, path, body) {
    const form = body instanceof FormData;
    const r = await this.raw(method, path, form ? body : body && JSON.stringify(body), body && !form ? 'application/json' : undefined);
    if (r.status >= 300) throw new Error(`${method} ${path}: ${r.status} ${r.text}`);
    return r.text ? JSON.parse(r.text) : null;
  }
  async job(path, body) {
    let job = await this.call('POST', path, body);
    while (['WAITING', 'WORKING'].includes(job.state)) {
      await new Promise((go) => setTimeout(go, 100));
      job = await this.call('GET', `/api/jobs/${job.id}`);
    }
    if (job.made === null) throw new Error(`${path}: ${job.problem}`);
    return job.made;
  }
  async enter() {
    await this.call('GET', '/api/session');
    await this.call('POST', '/api/accounts', {
      email: `${crypto.randomUUID()}@example.org`,
      name: 'Torturer',
      password: 'gravel kerb tomato',
    });
    await this.call('GET', '/api/session');
  }
}

const me = new Person();
await me.enter();
const sample = async (name) => (await me.raw('GET', `/api/outlines/samples/${name}`)).text;
const files = { geojson: await sample('outline.geojson'), gpx: await sample('outline.gpx'), csv: await sample('outline.csv') };
function form(fields) {
  const f = new FormData();
  for (const [k, v] of Object.entries(fields)) {
    if (v instanceof Blob) f.set(k, v, v.called);
    else f.set(k, String(v));
  }
  return f;
}
const blob = (content, called) => Object.assign(new Blob([content]), { called });
const layout = await me.call('POST', '/api/layouts', form({ file: blob(files.geojson, 'outline.geojson'), circuit: 'Vale' }));
const kind = (await me.call('GET', '/api/vehicle-classes')).find((c) => c.id === 'cup-gt');
const vehicle = await me.call('POST', '/api/vehicles', { name: 'Mine', basedOn: kind.id, numbers: kind.vehicle });
const reference = await me.job('/api/references', { layoutId: layout.id, vehicleId: vehicle.id });
const opened = await me.call('GET', `/api/references/${reference}`);
await me.call('POST', `/api/references/${reference}/revisions`, { version: opened.working.version, reason: 'First' });
const recording = await me.job(`/api/references/${reference}/logger`, { laps: 4, habits: [], live: false, seed: 1 });
let runs;
do {
  await new Promise((go) => setTimeout(go, 200));
  runs = (await me.call('GET', `/api/references/${reference}/runs`)).runs;
} while (runs.some((r) => r.recordings.some((f) => ['STORED', 'WORKING'].includes(f.state))));
const run = runs[0].id;
const lap = runs[0].laps.find((l) => l.number > 0).id;
const table = (await me.raw('GET', `/api/recordings/${recording}/file`)).text;
const exported = (await me.raw('GET', `/api/references/${reference}/export.json`)).text;
const entries = opened.working.content.corners;

// --- requests -------------------------------------------------------------------------------------

const api = JSON.parse(readFileSync(new URL('../web/openapi.json', import.meta.url), 'utf8'));
const ids = { id: [reference, layout.id, vehicle.id, run, lap, recording], corner: entries.map((e) => e.corner) };
const idFor = (path) =>
  path.startsWith('/api/references') ? reference
  : path.startsWith('/api/layouts') ? layout.id
  : path.startsWith('/api/vehicles') ? vehicle.id
  : path.startsWith('/api/runs') ? run
  : path.startsWith('/api/laps') ? lap
  : path.startsWith('/api/recordings') ? recording
  : one(ids.id);
/** Values of the kind that a schema describes; real ones where there are some. */
function of(schema, depth = 0) {
  if (!schema || depth > 7) return null;
  if (schema.$ref) {
    const name = schema.$ref.split('/').pop();
    if (REAL && name === 'CornerEntry') return structuredClone(one(entries));
    if (REAL && name === 'ReferenceContent') return structuredClone(opened.working.content);
    if (REAL && name === 'Vehicle') return structuredClone(kind.vehicle);
    return of(api.components.schemas[name], depth + 1);
  }
  const all = schema.oneOf ?? schema.anyOf ?? schema.allOf;
  if (all) return of(one(all), depth + 1);
  if (schema.enum) return one(schema.enum);
  const type = Array.isArray(schema.type) ? one(schema.type) : schema.type;
  switch (type) {
    case 'object': {
      const made = {};
      for (const [k, v] of Object.entries(schema.properties ?? {})) made[k] = of(v, depth + 1);
      return made;
    }
    case 'array':
      return Array.from({ length: below(3) }, () => of(schema.items, depth + 1));
    case 'integer':
      return one([0, 1, 2, 3, opened.working.version, below(100)]);
    case 'number':
      return one([0, 0.5, 1, 50, 1200, chance() * 4000]);
    case 'boolean':
      return chance() < 0.5;
    case 'string':
      if (schema.format === 'uuid') return one(ids.id);
      if (schema.format === 'date') return '2026-05-16';
      if (schema.format === 'date-time') return '2026-05-16T10:00:00Z';
      return one(['c1', 'Vale', '100 board', '', entries[0].corner]);
    default:
      return null;
  }
}
const ODD = [
  null, '', 0, -1, 1e308, -1e308, 1e-320, 2 ** 31, 2 ** 53, 1e400, '\u0000', 'a\u0000b', '\ud800', 'NaN', 'Infinity', true, false,
  [], {}, [null], [[]], { '': null }, 'x'.repeat(300), 'é'.repeat(5000), '../../etc', "' or 1=1 --", '=1+1', '<b>', '9'.repeat(400),
  '2026-13-45', '00000000-0000-0000-0000-000000000000', '\u202e\ufffe', -0.0,
];
/** Changes one place, or a few, of a value. */
function bent(value, depth = 0) {
  if (chance() < 0.12 || value === null || typeof value !== 'object') return structuredClone(one(ODD));
  if (Array.isArray(value)) {
    if (value.length === 0 || chance() < 0.15) return one([[null], Array(2000).fill(value[0] ?? 1), [], [[[[]]]]]);
    const copy = [...value];
    const at = below(copy.length);
    copy[at] = chance() < 0.2 ? null : bent(copy[at], depth + 1);
    return copy;
  }
  const keys = Object.keys(value);
  if (keys.length === 0) return { odd: one(ODD) };
  const copy = { ...value };
  const key = one(keys);
  if (chance() < 0.15) delete copy[key];
  else copy[key] = bent(copy[key], depth + 1);
  return copy;
}
/** JSON has no infinite numbers, but a client may write them. */
const json = (v) => JSON.stringify(v, (k, x) => (x === Infinity ? '#1e999' : x)).replaceAll('"#1e999"', '1e999');

const operations = Object.entries(api.paths).flatMap(([path, methods]) =>
  Object.entries(methods)
    .filter(([method]) => ['get', 'put', 'post', 'delete'].includes(method))
    .map(([method, op]) => ({ path, method: method.toUpperCase(), op })),
);
// What ends the torturer's own session or account, or waits for nobody.
const NOT = [/^\/api\/session$/, /^\/api\/account\/(password|leave|sessions|basket)/, /^\/api\/accounts/, /^\/api\/session\/(demo|password)/];
const tried = operations.filter((o) => !NOT.some((n) => n.test(o.path)) && !(o.method === 'DELETE' && /\/(runs|laps|recordings)\/\{id\}$/.test(o.path)));

function asked({ path, method, op }) {
  const odd = chance() < 0.15;
  let url = path.replace(/\{(\w+)\}/g, (_, name) =>
    encodeURIComponent(
      odd ? String(one([crypto.randomUUID(), 'x', '%00', '../..', '1', '-1', 'é'])) : name === 'corner' ? one(ids.corner) : name === 'number' ? '1' : name === 'name' ? 'outline.csv' : idFor(path),
    ),
  );
  const query = (op.parameters ?? []).filter((p) => p.in === 'query' && chance() < 0.8);
  if (query.length)
    url +=
      '?' +
      query
        .map((p) => `${p.name}=${encodeURIComponent(String(chance() < 0.5 ? one(['1e308', 'NaN', '-1', '0', '', '99999999999', '\u0000', 'x', '1e-300', 'Infinity']) : (of(p.schema) ?? '')))}`)
        .join('&');
  const content = op.requestBody?.content;
  if (!content) return { url, method };
  const [type, { schema }] = Object.entries(content)[0];
  if (type.startsWith('multipart')) {
    const fields = {};
    for (const name of Object.keys(schema?.properties ?? { file: 0 })) fields[name] = name === 'file' ? file() : one(['Vale', '', '\u0000', 'x'.repeat(500)]);
    return { url, method, body: form({ file: file(), ...fields }) };
  }
  if (type.includes('octet')) return { url, method, body: file(), type: 'application/octet-stream' };
  let value = of(schema);
  for (let n = 1 + below(3); n > 0; n--) value = bent(value);
  const text = json(value) ?? 'null';
  return { url, method, type: 'application/json', body: chance() < 0.03 ? text.slice(0, below(text.length)) : chance() < 0.01 ? '['.repeat(20_000) : text };
}

// --- files ----------------------------------------------------------------------------------------

function file() {
  const [called, text] = one([
    ['outline.geojson', files.geojson],
    ['outline.gpx', files.gpx],
    ['outline.csv', files.csv],
    ['laps.csv', table.slice(0, 200_000)],
    ['reference.json', exported],
  ]);
  let content = text;
  for (let n = 1 + below(3); n > 0; n--) content = torn(content);
  return blob(content, chance() < 0.1 ? one(['x', 'a.zip', 'ü.gpx', 'x'.repeat(250) + '.csv', '../a.csv']) : called);
}
function torn(text) {
  const at = below(text.length + 1);
  switch (below(12)) {
    case 0: return text.slice(0, at);
    case 1: return text.slice(at);
    case 2: return text.slice(0, at) + String.fromCharCode(below(0x2ff)) + text.slice(at + 1);
    case 3: return text.replace(/-?\d+\.\d+/, () => one(['NaN', '1e308', '-1e308', '', 'Infinity', '0', '1e-320', '9'.repeat(300)]));
    case 4: { let n = 0; const every = 2 + below(50); return text.replace(/-?\d+\.\d+/g, (m) => (++n % every ? m : one(['NaN', '1e308', '0', '-5', '1e9']))); }
    case 5: return '';
    case 6: return '<a>'.repeat(50_000);
    case 7: return '['.repeat(50_000);
    case 8: return Array(20_000).fill('a').join(',') + '\n1,2,3\n';
    case 9: return text.replaceAll(',', one([';', '\t', '"', '\u0000']));
    case 10: return `<?xml version="1.0"?><!DOCTYPE a [<!ENTITY b SYSTEM "file:///etc/passwd"><!ENTITY c "&b;&b;">]><gpx>&c;</gpx>`;
    default: return text.split('\n').map((l) => (chance() < 0.05 ? '' : l)).join('\n') ;
  }
}

// --- the run --------------------------------------------------------------------------------------

const failures = new Map();
const counts = {};
let slow = 0;
let longest = 0;
const began = performance.now();
const note = (what, detail) => {
  if (!failures.has(what)) failures.set(what, { times: 0, detail });
  failures.get(what).times++;
};
async function send(o) {
  const a = asked(o);
  const what = `${o.method} ${o.path}`;
  try {
    const r = await me.raw(a.method, a.url, a.body, a.type);
    counts[Math.floor(r.status / 100) + 'xx'] = (counts[Math.floor(r.status / 100) + 'xx'] ?? 0) + 1;
    longest = Math.max(longest, r.took);
    if (r.status >= 500 && r.status !== 507) note(`${r.status} ${what}`, `${a.url} ${String(a.body).slice(0, 1500)} -> ${r.text.slice(0, 300)}`);
    if (r.took > LONGEST) {
      slow++;
      note(`slow ${what}`, `${(r.took / 1000).toFixed(1)} s ${a.url} ${String(a.body).slice(0, 300)}`);
    }
    if (r.status === 401) throw new Error(`signed out by ${what}`);
  } catch (e) {
    if (String(e).includes('signed out')) throw e;
    note(`broken ${what}`, `${e} ${e.cause ?? ''} ${a.url}`);
  }
}
let left = requests;
const lane = async () => {
  while (left-- > 0) await send(one(tried));
};
await Promise.all([lane(), lane(), lane()]);

const seconds = ((performance.now() - began) / 1000).toFixed(0);
console.log(`${requests} requests over ${tried.length} operations, seed ${process.argv[4] ?? 1}: ${JSON.stringify(counts)}, longest ${longest.toFixed(0)} ms, ${slow} over 5 s, ${seconds} s`);
for (const [what, f] of failures) console.log(`${String(f.times).padStart(5)} × ${what}\n        ${f.detail.replaceAll('\u0000', '\\0')}`);
process.exit(failures.size ? 1 : 0);

// Throws what nobody should send at a running demo, and looks whether it bears it:
//   node bench/torture.mjs http://127.0.0.1:8080 [requests] [seed]
// Bounded, and only on this machine. Ends with 1 where anything was answered with 5xx, or not within 5 s.
import { readFileSync } from 'node:fs';
import { Person, blob, chances, form, here } from './person.mjs';

const base = here(process.argv[2] ?? 'http://127.0.0.1:8080');
const requests = Number(process.argv[3] ?? 10_000);
const seed = Number(process.argv[4] ?? 1);
const LONGEST = 5000;
const chance = chances(seed);
const below = (n) => Math.floor(chance() * n);
const one = (list) => list[below(list.length)];

const me = await new Person(base).enter();
const files = {
  geojson: await me.sample('outline.geojson'),
  gpx: await me.sample('outline.gpx'),
  csv: await me.sample('outline.csv'),
};
const { id: reference, layout, vehicle, kind, opened } = await me.reference();
const recording = await me.job(`/api/references/${reference}/logger`, { laps: 4, habits: [], live: false, seed: 1 });
const runs = await me.settled(reference);
const run = runs[0].id;
const lap = runs[0].laps.find((l) => l.number > 0).id;
const table = (await me.raw('GET', `/api/recordings/${recording}/file`)).text;
const exported = (await me.raw('GET', `/api/references/${reference}/export.json`)).text;
const entries = opened.working.content.corners;

// --- requests -------------------------------------------------------------------------------------

const api = JSON.parse(readFileSync(new URL('../web/openapi.json', import.meta.url), 'utf8'));
const ids = { id: [reference, layout, vehicle, run, lap, recording], corner: entries.map((e) => e.corner) };
const idFor = (path) =>
  path.startsWith('/api/references') ? reference
  : path.startsWith('/api/layouts') ? layout
  : path.startsWith('/api/vehicles') ? vehicle
  : path.startsWith('/api/runs') ? run
  : path.startsWith('/api/laps') ? lap
  : path.startsWith('/api/recordings') ? recording
  : one(ids.id);
/** Values of the kind that a schema describes; real ones where there are some. */
function of(schema, depth = 0) {
  if (!schema || depth > 7) return null;
  if (schema.$ref) {
    const name = schema.$ref.split('/').pop();
    if (name === 'CornerEntry') return structuredClone(one(entries));
    if (name === 'ReferenceContent') return structuredClone(opened.working.content);
    if (name === 'Vehicle') return structuredClone(kind.vehicle);
    return of(api.components.schemas[name], depth + 1);
  }
  const all = schema.oneOf ?? schema.anyOf ?? schema.allOf;
  if (all) return of(one(all), depth + 1);
  if (schema.enum) return one(schema.enum);
  const type = Array.isArray(schema.type) ? one(schema.type) : schema.type;
  switch (type) {
    case 'object': {
      const made = {};
      for (const [k, v] of Object.entries(schema.properties ?? {}))
        made[k] = k === 'version' ? opened.working.version : of(v, depth + 1);
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
    // What is changed must name the version that it was changed on.
    const version = o.path.startsWith('/api/references/{id}') && /^\{"version":(\d+)/.exec(r.text);
    if (version) opened.working.version = Number(version[1]);
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
console.log(`${requests} requests over ${tried.length} operations, seed ${seed}: ${JSON.stringify(counts)}, longest ${longest.toFixed(0)} ms, ${slow} over 5 s, ${seconds} s`);
for (const [what, f] of failures) console.log(`${String(f.times).padStart(5)} × ${what}\n        ${f.detail.replaceAll('\u0000', '\\0')}`);
process.exit(failures.size ? 1 : 0);

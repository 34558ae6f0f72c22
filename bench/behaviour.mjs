// What a running demo answers, kept to see that a change of the house changed nothing else:
//   node bench/behaviour.mjs record http://127.0.0.1:8080 FOLDER
//   node bench/behaviour.mjs compare FOLDER FOLDER
// Records every GET of the demo's people, the answers while dragging, ways, days, exports and debriefs, the same of
// three generated roads with laps that were driven on them, and odd files. Compares numbers within 1e-9, all else exactly.
import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { inflateSync } from 'node:zlib';
import { Person, blob, chances, form, here } from './person.mjs';

const NEAR = 1e-9;
const LAPS = 2;

/** Names ids by the order in which they were seen, and takes moments out: both differ from start to start. */
class Names {
  known = new Map();
  plain(text) {
    return text
      .replace(/[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}/g, (id) => {
        if (!this.known.has(id)) this.known.set(id, `id-${this.known.size + 1}`);
        return this.known.get(id);
      })
      .replace(/\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d(\.\d+)?)?(Z|[+-]\d\d:?\d\d)?/g, 'moment')
      .replace(/\d{4}-\d\d-\d\d/g, 'date')
      .replace(/"[^"]*\/inbox\//g, '"inbox/')
      .replace(/port 1?\d{3,4}\b/g, 'port');
  }
}

/** A document by what is drawn in it: its streams unpacked, without ids and dates. */
function drawn(bytes) {
  const hash = createHash('sha256');
  const mark = Buffer.from('stream\n');
  let streams = 0;
  for (let at = bytes.indexOf(mark); at >= 0; at = bytes.indexOf(mark, at + 1)) {
    try {
      hash.update(inflateSync(bytes.subarray(at + mark.length)));
      streams++;
    } catch {
      // The end of a stream, or one that is not packed.
    }
  }
  return { streams, hash: hash.digest('hex') };
}

async function record(base, folder) {
  const description = JSON.parse(readFileSync(new URL('../web/openapi.json', import.meta.url)));
  mkdirSync(folder, { recursive: true });
  const names = new Names();
  let count = 0;

  const keep = (name, value) => {
    count++;
    const safe = `${String(count).padStart(5, '0')} ${names.plain(name).replace(/[^\w.=&-]+/g, ' ').trim()}`.slice(0, 200);
    writeFileSync(join(folder, `${safe}.json`), names.plain(JSON.stringify(value)));
  };
  const ask = async (who, label, method, path, body) => {
    if (method === 'GET' && /\.(zip|pdf)$|photos/.test(path)) {
      const response = await fetch(base + path, { headers: { cookie: who.cookie } });
      const bytes = Buffer.from(await response.arrayBuffer());
      keep(`${label} ${method} ${path}`, { status: response.status, body: path.endsWith('.pdf') ? drawn(bytes) : bytes.length });
      return null;
    }
    const answer = await who.ask(method, path, body);
    keep(`${label} ${method} ${path}`, { status: answer.status, body: answer.body ?? answer.text });
    return answer.body;
  };

  /** Every GET that the description knows, for whatever this person sees. */
  async function everything(who, label) {
    const pool = { layouts: [], references: [], vehicles: [], runs: [], laps: [], recordings: [], sheets: [] };
    const list = async (path) => (await who.call('GET', path)) ?? [];
    pool.layouts = (await list('/api/layouts')).map((l) => l.id);
    pool.references = (await list('/api/references')).map((r) => r.id);
    pool.vehicles = (await list('/api/vehicles')).map((v) => v.id);
    for (const v of pool.vehicles) for (const s of (await who.call('GET', `/api/vehicles/${v}/sheets`)).sheets) pool.sheets.push([s.id, v]);
    for (const r of pool.references)
      for (const run of await who.settled(r)) {
        pool.runs.push(run.id);
        for (const f of run.recordings) pool.recordings.push(f.id);
        for (const lap of (run.laps ?? []).slice(0, LAPS)) pool.laps.push(lap.id);
      }
    for (const path of Object.keys(description.paths).sort()) {
      if (!description.paths[path].get || /account|session$|jobs|everything|recordings\/\{id\}\/file|revisions\/|comparison|driven|against|samples|photo/.test(path)) continue;
      const room = /^\/api\/(\w+)\/\{/.exec(path)?.[1];
      const ids = room ? (pool[room] ?? []).flat().filter((x, i, all) => all.indexOf(x) === i) : [null];
      for (const id of ids) {
        const query = /\/sun$/.test(path) ? '?at=2026-06-21T10:00:00Z' : '';
        await ask(who, label, 'GET', path.replace(/\{\w+\}/, id) + query);
      }
    }
    for (const [a] of pool.sheets) for (const [b] of pool.sheets) await ask(who, label, 'GET', `/api/sheets/${a}/against/${b}`);
    for (const r of pool.references) await desk(who, label, r);
    return pool;
  }

  /** What the desk answers: corners as they are and dragged, ways, days, revisions, files read back. */
  async function desk(who, label, id) {
    const open = await who.call('GET', `/api/references/${id}`);
    const content = open.working.content;
    for (const entry of content.corners) {
      await ask(who, label, 'POST', `/api/references/${id}/answer`, entry);
      for (const by of [-9, 7]) {
        const moved = structuredClone(entry);
        for (const p of moved.points ?? []) p.at += by;
        await ask(who, `${label} moved ${by}`, 'POST', `/api/references/${id}/answer`, moved);
      }
      await ask(who, label, 'GET', `/api/references/${id}/driven/${encodeURIComponent(entry.corner)}`);
      const arising = await ask(who, label, 'POST', `/api/references/${id}/choices/arising`, { entry });
      for (const question of Array.isArray(arising) ? arising : [])
        await ask(who, `${label} ${question}`, 'POST', `/api/references/${id}/choices`, { entry, question });
      for (const variant of content.variants ?? [])
        await ask(who, label, 'POST', `/api/references/${id}/variants/answer`, { entry, variant });
    }
    for (const variant of content.variants ?? [])
      await ask(who, label, 'POST', `/api/references/${id}/variants/lap`, { entries: content.corners, variant });
    const revisions = (await who.call('GET', `/api/references/${id}/revisions`)).map((r) => r.number);
    for (const n of revisions) {
      await ask(who, label, 'GET', `/api/references/${id}/revisions/${n}`);
      await ask(who, label, 'GET', `/api/references/${id}/comparison?from=${n}`);
      await ask(who, label, 'GET', `/api/references/${id}/comparison?from=${Math.min(...revisions)}&to=${n}`);
    }
    for (const kind of ['json', 'csv']) {
      const text = (await who.raw('GET', `/api/references/${id}/export.${kind}`)).text;
      const bent = [text, text.replace(/\d{3}/, 'x'), text.slice(0, text.length / 2), text.replaceAll(',', ';')];
      for (const [i, t] of bent.entries())
        await ask(who, `${label} ${kind} ${i}`, 'POST', `/api/references/${id}/read`, form({ file: blob(t, `a.${kind}`) }));
    }
  }

  /** A closed road of waves, as a file of points. */
  function road(seed, length) {
    const chance = chances(seed);
    const waves = Array.from({ length: 6 }, (_, k) => ({ k: k + 2, a: (0.16 * chance()) / (k / 3 + 1), p: 6.283 * chance() }));
    const n = Math.round(length / 4);
    const rows = ['x,y,z'];
    for (let i = 0; i < n; i++) {
      const t = (6.283185307 * i) / n;
      const r = (length / 6.9) * (1 + waves.reduce((s, w) => s + w.a * Math.sin(w.k * t + w.p), 0));
      rows.push(`${(r * Math.cos(t)).toFixed(2)},${(r * Math.sin(t)).toFixed(2)},${(8 * Math.sin(2 * t + seed)).toFixed(2)}`);
    }
    return rows.join('\n');
  }

  const roads = [
    [11, 2600, 'cup-gt'],
    [12, 4100, 'prototype'],
    [13, 1900, 'superbike'],
  ];
  for (const person of ['DRIVER', 'COACH']) {
    const who = await new Person(base).demo(person);
    await everything(who, `demo ${person}`);
  }
  const me = await new Person(base).enter();
  const classes = await me.call('GET', '/api/vehicle-classes');
  for (const [seed, length, wanted] of roads) {
    const text = road(seed, length);
    await ask(me, `road ${seed}`, 'POST', '/api/outlines/preview', form({ file: blob(text, 'road.csv') }));
    const layout = (await me.call('POST', '/api/layouts', form({ file: blob(text, 'road.csv'), circuit: `Road ${seed}` }))).id;
    const kind = classes.find((c) => c.id === wanted) ?? classes[seed % classes.length];
    const vehicle = (await me.call('POST', '/api/vehicles', { name: kind.id, basedOn: kind.id, numbers: kind.vehicle })).id;
    const id = await me.job('/api/references', { layoutId: layout, vehicleId: vehicle });
    const opened = await me.call('GET', `/api/references/${id}`);
    await me.call('POST', `/api/references/${id}/revisions`, { version: opened.working.version, reason: 'First' });
    const mistakes = (await me.call('GET', '/api/logger/mistakes')).slice(0, 9);
    const corners = opened.working.content.corners.map((c) => c.corner);
    const habits = mistakes.map((m, i) => ({ mistake: m.mistake, corner: corners[i % corners.length], size: null }));
    for (const planted of [[], habits]) {
      const drive = { laps: 5, habits: planted, live: false, seed };
      const answer = await me.ask('POST', `/api/references/${id}/logger`, drive);
      keep(`road ${seed} drive`, { status: answer.status, detail: answer.body?.detail ?? null });
      let job = answer.body;
      while (job && ['WAITING', 'WORKING'].includes(job.state)) {
        await new Promise((go) => setTimeout(go, 200));
        job = await me.call('GET', `/api/jobs/${job.id}`);
      }
      await me.settled(id);
    }
  }
  await everything(me, 'roads');
  const odd = [
    ['empty.csv', ''],
    ['one.csv', 'x,y\n1,2'],
    ['words.csv', 'x,y\na,b\nc,d\ne,f'],
    ['knot.csv', `x,y\n${Array.from({ length: 400 }, (_, i) => `${(300 * Math.sin(i / 31)).toFixed(1)},${(300 * Math.sin(i / 15)).toFixed(1)}`).join('\n')}`],
    ['few.csv', road(14, 400).split('\n').filter((_, i) => i % 9 === 0).join('\n')],
    ['semicolon.csv', road(15, 2000).replaceAll('.', '#').replaceAll(',', ';').replaceAll('#', ',')],
    ['torn.geojson', '{"type":"FeatureCollection","features":[{"type":"Feat'],
    ['no.gpx', '<gpx><trk></trk></gpx>'],
  ];
  for (const [name, text] of odd) await ask(me, `odd ${name}`, 'POST', '/api/outlines/preview', form({ file: blob(text, name) }));
  for (const l of (await me.call('GET', '/api/layouts')).slice(0, 1))
    for (const [name, text] of odd) await ask(me, `survey ${name}`, 'POST', `/api/layouts/${l.id}/survey/read`, form({ file: blob(text, name) }));
  console.log(`${count} answers in ${folder}`);
}

function differences(a, b, path, found) {
  if (typeof a === 'number' && typeof b === 'number') {
    if (Math.abs(a - b) > NEAR * Math.max(1, Math.abs(a))) found.push(`${path}: ${a} → ${b}`);
  } else if (a && b && typeof a === 'object' && typeof b === 'object') {
    for (const key of new Set([...Object.keys(a), ...Object.keys(b)])) differences(a[key], b[key], `${path}.${key}`, found);
  } else if (a !== b) found.push(`${path}: ${String(JSON.stringify(a)).slice(0, 160)} → ${String(JSON.stringify(b)).slice(0, 160)}`);
}

function compare(before, after) {
  const [a, b] = [before, after].map((f) => readdirSync(f).sort());
  const found = [];
  for (const name of new Set([...a, ...b])) {
    if (!a.includes(name) || !b.includes(name)) found.push(`${name}: only ${a.includes(name) ? 'before' : 'after'}`);
    else differences(...[before, after].map((f) => JSON.parse(readFileSync(join(f, name)))), name, found);
  }
  for (const line of found.slice(0, 60)) console.log(line);
  console.log(`${a.length} answers, ${found.length} differences`);
  process.exit(found.length ? 1 : 0);
}

const [what, one, two] = process.argv.slice(2);
if (what === 'record') await record(here(one), two);
else if (what === 'compare') compare(one, two);
else throw new Error('record ADDRESS FOLDER, or compare FOLDER FOLDER');

// A hundred people with ten thousand laps on a running demo: node bench/crowd.mjs http://127.0.0.1:8080 [people] [runs] [laps] [minutes]
// Makes them if they are not there yet (some ten minutes), then lets all of them read at once, each with pauses of two to six
// seconds as somebody who reads. It leaves the people and their laps behind: use a demo that can be thrown away.
const base = process.argv[2] ?? 'http://127.0.0.1:8080';
if (!/^http:\/\/(127\.0\.0\.1|localhost)(:|\/|$)/.test(base)) throw new Error('only this machine is measured');
const [people, runs, laps] = [3, 4, 5].map((i, k) => Number(process.argv[i] ?? [100, 5, 20][k]));
const minutes = Number(process.argv[6] ?? 3);

class Person {
  constructor(n) {
    this.email = `reader-${n}@example.org`;
    this.jar = new Map();
  }
  async call(method, path, body) {
    const headers = {
      cookie: [...this.jar].map(([k, v]) => `${k}=${v}`).join('; '),
      'X-XSRF-TOKEN': this.jar.get('XSRF-TOKEN') ?? '',
    };
    if (body && !(body instanceof FormData)) headers['content-type'] = 'application/json';
    const response = await fetch(base + path, {
      method,
      headers,
      body: body instanceof FormData ? body : body && JSON.stringify(body),
    });
    for (const line of response.headers.getSetCookie()) {
      const [, name, value] = /^([^=]+)=([^;]*)/.exec(line);
      this.jar.set(name, value);
    }
    const text = await response.text();
    if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${text}`);
    return text ? JSON.parse(text) : null;
  }
  /** Asks for heavy work, and waits for what it makes. */
  async job(path, body) {
    let job = await this.call('POST', path, body);
    while (['WAITING', 'WORKING'].includes(job.state)) {
      await new Promise((go) => setTimeout(go, 100));
      job = await this.call('GET', `/api/jobs/${job.id}`);
    }
    if (job.made === null) throw new Error(`${path}: ${job.problem}`);
    return job.made;
  }
  /** Signs in, or makes the account and all that belongs to it. */
  async enter() {
    await this.call('GET', '/api/session');
    const password = 'a long enough word';
    try {
      await this.call('POST', '/api/accounts', { email: this.email, name: this.email, password });
    } catch {
      await this.call('POST', '/api/session', { email: this.email, password });
    }
    await this.call('GET', '/api/session');
    this.reference = (await this.call('GET', '/api/paddock')).reference ?? (await this.draft());
    const all = () => this.call('GET', `/api/references/${this.reference}/runs`);
    const have = (await all()).runs.length;
    for (let i = have; i < runs; i++) {
      const habits = [{ mistake: i % 2 ? 'COASTS' : 'BRAKES_EARLY', corner: 'c1' }];
      const asked = { laps, habits, live: false, seed: i + 1, spread: 2 };
      await this.job(`/api/references/${this.reference}/logger`, asked);
      while ((await all()).runs.some((r) => r.recordings.some((f) => ['STORED', 'WORKING'].includes(f.state))))
        await new Promise((go) => setTimeout(go, 300));
    }
    this.runs = (await all()).runs.map((r) => r.id);
    this.laps = (await all()).runs.reduce((sum, r) => sum + r.laps.filter((l) => l.number > 0).length, 0);
  }
  async draft() {
    const outline = await (await fetch(base + '/api/outlines/samples/outline.geojson', { headers: { cookie: [...this.jar].map(([k, v]) => `${k}=${v}`).join('; ') } })).text();
    const form = new FormData();
    form.set('file', new Blob([outline]), 'outline.geojson');
    form.set('circuit', 'Vale');
    const layout = await this.call('POST', '/api/layouts', form);
    const kind = (await this.call('GET', '/api/vehicle-classes')).find((c) => c.id === 'cup-gt');
    const vehicle = await this.call('POST', '/api/vehicles', { name: 'Mine', basedOn: kind.id, numbers: kind.vehicle });
    const made = await this.job('/api/references', { layoutId: layout.id, vehicleId: vehicle.id });
    const opened = await this.call('GET', `/api/references/${made}`);
    await this.call('POST', `/api/references/${made}/revisions`, { version: opened.working.version, reason: 'First' });
    return made;
  }
}

const crowd = Array.from({ length: people }, (_, n) => new Person(n));
const started = performance.now();
let next = 0;
const lane = async () => {
  while (next < people) await crowd[next++].enter();
};
await Promise.all([lane(), lane()]);
const total = crowd.reduce((sum, p) => sum + p.laps, 0);
console.log(`${people} people, ${total} laps, ${((performance.now() - started) / 1000).toFixed(0)} s`);

const took = new Map();
const errors = [];
async function timed(name, work) {
  const start = performance.now();
  try {
    await work();
  } catch (e) {
    errors.push(String(e));
  }
  if (!took.has(name)) took.set(name, []);
  took.get(name).push(performance.now() - start);
}
const until = performance.now() + minutes * 60_000;
const pause = () => new Promise((go) => setTimeout(go, 2000 + 4000 * Math.random()));
await Promise.all(
  crowd.map(async (p) => {
    await pause();
    while (performance.now() < until) {
      const run = p.runs[Math.floor(Math.random() * p.runs.length)];
      await timed('paddock', () => p.call('GET', '/api/paddock'));
      await pause();
      await timed('brief: the reference', () => p.call('GET', `/api/references/${p.reference}`));
      await pause();
      await timed('runs', () => p.call('GET', `/api/references/${p.reference}/runs`));
      await pause();
      await timed('debrief', () => p.call('GET', `/api/runs/${run}/debrief`));
      await pause();
      await timed('history', () => p.call('GET', `/api/references/${p.reference}/history`));
      await pause();
    }
  }),
);
const quantile = (sorted, q) => sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))];
for (const [name, list] of [...took, ['all', [...took.values()].flat()]]) {
  list.sort((a, b) => a - b);
  const say = (q) => `${quantile(list, q).toFixed(0)} ms`;
  console.log(`${name.padEnd(22)} ${String(list.length).padStart(6)}  p50 ${say(0.5)}  p95 ${say(0.95)}  most ${list.at(-1).toFixed(0)} ms`);
}
console.log(`${errors.length} errors`, errors.slice(0, 3));
process.exit(errors.length ? 1 : 0);

// Somebody who uses a running server over HTTP, with a session of their own.

/** Refuses an address that is not this machine's. */
export function here(base) {
  if (!/^http:\/\/(127\.0\.0\.1|localhost)(:|\/|$)/.test(base)) throw new Error('only this machine is measured');
  return base;
}
export const quantile = (list, q) => {
  const sorted = [...list].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))];
};
export const pause = (ms) => new Promise((go) => setTimeout(go, ms));

/** Mulberry32: the same seed, the same chances. */
export function chances(seed) {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A form; a blob with a name called goes as a file of that name. */
export function form(fields) {
  const f = new FormData();
  for (const [k, v] of Object.entries(fields)) {
    if (v instanceof Blob) f.set(k, v, v.called);
    else f.set(k, String(v));
  }
  return f;
}
export const blob = (content, called) => Object.assign(new Blob([content]), { called });

export class Person {
  jar = new Map();
  constructor(base) {
    this.base = base;
  }
  get cookie() {
    return [...this.jar].map(([k, v]) => `${k}=${v}`).join('; ');
  }
  /** Sends what is given as it is; answers status, text and how long it took, ms. */
  async raw(method, path, body, type) {
    const headers = { cookie: this.cookie, 'X-XSRF-TOKEN': this.jar.get('XSRF-TOKEN') ?? '' };
    if (type) headers['content-type'] = type;
    const began = performance.now();
    const ask = () => fetch(this.base + path, { method, headers, body, signal: AbortSignal.timeout(60_000) });
    // A connection that lay idle may be closed as it is used again: a browser asks again then.
    const response = await ask().catch((e) => {
      if (method === 'GET' && e.cause?.code === 'UND_ERR_SOCKET') return ask();
      throw e;
    });
    for (const line of response.headers.getSetCookie()) {
      const [, name, value] = /^([^=]+)=([^;]*)/.exec(line);
      this.jar.set(name, value);
    }
    const text = await response.text();
    return { status: response.status, text, took: performance.now() - began };
  }
  /** Sends a form, or anything else as JSON; the answer has a body too. */
  async ask(method, path, body) {
    const json = body !== undefined && !(body instanceof FormData);
    const answer = await this.raw(method, path, json ? JSON.stringify(body) : body, json ? 'application/json' : undefined);
    return { ...answer, body: /^[[{]/.test(answer.text) ? JSON.parse(answer.text) : null };
  }
  /** The same, and fails where it is refused. */
  async call(method, path, body) {
    const answer = await this.ask(method, path, body);
    if (answer.status >= 300) throw new Error(`${method} ${path}: ${answer.status} ${answer.text.slice(0, 300)}`);
    return answer.body;
  }
  /** Asks for heavy work, and waits for what it makes. */
  async job(path, body) {
    let job = await this.call('POST', path, body);
    while (['WAITING', 'WORKING'].includes(job.state)) {
      await pause(100);
      job = await this.call('GET', `/api/jobs/${job.id}`);
    }
    if (job.made === null) throw new Error(`${path}: ${job.problem}`);
    return job.made;
  }
  /** Makes an account, or signs in where there is one. */
  async enter(email = `${crypto.randomUUID()}@example.org`) {
    const password = 'gravel kerb tomato';
    await this.call('GET', '/api/session');
    const made = await this.ask('POST', '/api/accounts', { email, name: 'Somebody', password });
    if (made.status >= 300) await this.call('POST', '/api/session', { email, password });
    await this.call('GET', '/api/session');
    return this;
  }
  async demo(person = 'DRIVER') {
    await this.call('GET', '/api/session');
    await this.call('POST', '/api/session/demo', { person });
    return this;
  }
  /** A file of the samples, as text. */
  async sample(name) {
    return (await this.raw('GET', `/api/outlines/samples/${name}`)).text;
  }
  /** A sample circuit, a vehicle of a class, and the reference drafted and saved for them. */
  async reference(vehicleClass = 'cup-gt') {
    const file = blob(await this.sample('outline.geojson'), 'outline.geojson');
    const layout = (await this.call('POST', '/api/layouts', form({ file, circuit: 'Vale' }))).id;
    const kind = (await this.call('GET', '/api/vehicle-classes')).find((c) => c.id === vehicleClass);
    const made = await this.call('POST', '/api/vehicles', { name: 'Mine', basedOn: kind.id, numbers: kind.vehicle });
    const id = await this.job('/api/references', { layoutId: layout, vehicleId: made.id });
    const opened = await this.call('GET', `/api/references/${id}`);
    await this.call('POST', `/api/references/${id}/revisions`, { version: opened.working.version, reason: 'First' });
    return { id, layout, vehicle: made.id, kind, opened };
  }
  /** Files of a reference, once none of them is being read. */
  async settled(reference) {
    for (;;) {
      const runs = (await this.call('GET', `/api/references/${reference}/runs`)).runs;
      if (!runs.some((r) => r.recordings.some((f) => ['STORED', 'WORKING'].includes(f.state)))) return runs;
      await pause(300);
    }
  }
}

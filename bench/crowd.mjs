// A hundred people with ten thousand laps on a running demo: node bench/crowd.mjs http://127.0.0.1:8080 [people] [runs] [laps] [minutes]
// Makes them if they are not there yet (some ten minutes), then lets all of them read at once, each with pauses of two to six
// seconds as somebody who reads. It leaves the people and their laps behind: use a demo that can be thrown away.
import { Person as Somebody, here, quantile } from './person.mjs';

const base = here(process.argv[2] ?? 'http://127.0.0.1:8080');
const [people, runs, laps] = [3, 4, 5].map((i, k) => Number(process.argv[i] ?? [100, 5, 20][k]));
const minutes = Number(process.argv[6] ?? 3);

class Person extends Somebody {
  constructor(n) {
    super(base);
    this.email = `reader-${n}@example.org`;
  }
  /** Signs in, or makes the account and all that belongs to it. */
  async come() {
    await this.enter(this.email);
    this.drafted = (await this.call('GET', '/api/paddock')).reference ?? (await this.reference()).id;
    const have = (await this.settled(this.drafted)).length;
    for (let i = have; i < runs; i++) {
      const habits = [{ mistake: i % 2 ? 'COASTS' : 'BRAKES_EARLY', corner: 'c1' }];
      await this.job(`/api/references/${this.drafted}/logger`, { laps, habits, live: false, seed: i + 1, spread: 2 });
    }
    const all = await this.settled(this.drafted);
    this.runs = all.map((r) => r.id);
    this.laps = all.reduce((sum, r) => sum + r.laps.filter((l) => l.number > 0).length, 0);
  }
}

const crowd = Array.from({ length: people }, (_, n) => new Person(n));
const started = performance.now();
let next = 0;
const lane = async () => {
  while (next < people) await crowd[next++].come();
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
      await timed('brief: the reference', () => p.call('GET', `/api/references/${p.drafted}`));
      await pause();
      await timed('runs', () => p.call('GET', `/api/references/${p.drafted}/runs`));
      await pause();
      await timed('debrief', () => p.call('GET', `/api/runs/${run}/debrief`));
      await pause();
      await timed('history', () => p.call('GET', `/api/references/${p.drafted}/history`));
      await pause();
    }
  }),
);
for (const [name, list] of [...took, ['all', [...took.values()].flat()]]) {
  list.sort((a, b) => a - b);
  const say = (q) => `${quantile(list, q).toFixed(0)} ms`;
  console.log(`${name.padEnd(22)} ${String(list.length).padStart(6)}  p50 ${say(0.5)}  p95 ${say(0.95)}  most ${list.at(-1).toFixed(0)} ms`);
}
console.log(`${errors.length} errors`, errors.slice(0, 3));
process.exit(errors.length ? 1 : 0);

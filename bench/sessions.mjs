// What a session costs on a running demo: node bench/sessions.mjs http://127.0.0.1:8080 [people] [minutes]
// A plan of the demo's 14 corners and of a loop of 34, first and again; then people who read day sheet and brief, with
// pauses of two to six seconds. It leaves people and sessions behind: use a demo that can be thrown away.
import { Person, blob, form, here, pause, quantile } from './person.mjs';

const base = here(process.argv[2] ?? 'http://127.0.0.1:8080');
const people = Number(process.argv[3] ?? 100);
const minutes = Number(process.argv[4] ?? 2);
const CORNERS = 34;

const tomorrow = `${new Date(Date.now() + 86_400_000).toISOString().slice(0, 10)}T10:20:00`;
const session = (day) => ({
  kind: 'QUALIFYING',
  name: 'Qualifying',
  timing: { start: { wall: tomorrow, zone: 'Europe/Lisbon' }, minutes: 20, later: 0, state: 'ON' },
  day: { like: '', day: { extraMass: 0, windSpeed: 0, windFrom: 0, drag: 1, downforce: 1, hour: '', ...day }, rubber: 'USUAL' },
});
const dry = { grip: 1, surface: { state: 'DRY', dried: 0 } };

async function planned(who, reference, day = dry) {
  const event = (await who.call('POST', '/api/events', { name: 'Weekend', zone: 'Europe/Lisbon' })).id;
  const body = { version: 0, reference, session: session(day) };
  return (await who.call('POST', `/api/events/${event}/sessions`, body)).id;
}
const say = (name, list) =>
  console.log(
    `${name.padEnd(44)} ${String(list.length).padStart(5)} ×  p50 ${quantile(list, 0.5).toFixed(0)} ms  p95 ${quantile(list, 0.95).toFixed(0)} ms  most ${Math.max(...list).toFixed(0)} ms`,
  );

/** The first plan of conditions not asked for before, and the same asked for again. */
async function plans(name, who, reference) {
  const id = await planned(who, reference);
  const first = [];
  const again = [];
  let version = (await who.call('GET', `/api/sessions/${id}`)).line.version;
  for (let i = 0; i < 36; i++) {
    // Not so far from the reference that the line is searched anew.
    const body = { version, reference, session: session({ ...dry, grip: 0.9 + 0.003 * i, extraMass: i }) };
    const r = await who.ask('PUT', `/api/sessions/${id}`, body);
    version = r.body.line.version;
    first.push(r.took);
    again.push((await who.ask('GET', `/api/sessions/${id}`)).took);
  }
  // The virtual machine compiles what is asked for most while it runs.
  say(`${name}: first, of the first twelve`, first.slice(0, 12));
  say(`${name}: first, of the last twelve`, first.slice(-12));
  say(`${name}: again`, again);
}

const demo = await new Person(base).demo();
await plans('plan, 14 corners', demo, (await demo.call('GET', '/api/paddock')).reference);

// A wavy loop with as many corners.
const me = await new Person(base).enter();
const rows = ['x,y'];
const n = 2600;
for (let i = 0; i < n; i++) {
  const a = (2 * Math.PI * i) / n;
  const r = 1400 + 55 * Math.sin((CORNERS / 2) * a);
  rows.push(`${(r * Math.cos(a)).toFixed(2)},${(r * Math.sin(a)).toFixed(2)}`);
}
const layout = (await me.call('POST', '/api/layouts', form({ file: blob(rows.join('\n'), 'waves.csv'), circuit: 'Waves' }))).id;
const kind = (await me.call('GET', '/api/vehicle-classes')).find((c) => c.id === 'cup-gt');
const vehicle = (await me.call('POST', '/api/vehicles', { name: 'Mine', basedOn: kind.id, numbers: kind.vehicle })).id;
const wavy = await me.job('/api/references', { layoutId: layout, vehicleId: vehicle });
const corners = (await me.call('GET', `/api/references/${wavy}`)).corners.length;
await plans(`plan, ${corners} corners`, me, wavy);

const crowd = [];
async function come() {
  const who = await new Person(base).enter();
  const id = await planned(who, (await who.reference()).id);
  // The screen that plans a session shows it.
  await who.call('GET', `/api/sessions/${id}`);
  crowd.push({ who, id });
}
let left = people;
await Promise.all([0, 1].map(async () => { while (left-- > 0) await come(); }));
const took = { 'day sheet': [], brief: [] };
let errors = 0;
const until = performance.now() + minutes * 60_000;
await Promise.all(
  crowd.map(async ({ who, id }) => {
    while (performance.now() < until) {
      await pause(2000 + 4000 * Math.random());
      for (const [name, path] of [['day sheet', '/api/events'], ['brief', `/api/sessions/${id}`]]) {
        const r = await who.ask('GET', path);
        took[name].push(r.took);
        errors += r.status >= 300 ? 1 : 0;
        await pause(500);
      }
    }
  }),
);
for (const [name, list] of Object.entries(took)) say(`${name}, ${people} people`, list);
console.log(`${errors} errors`);
process.exit(errors ? 1 : 0);

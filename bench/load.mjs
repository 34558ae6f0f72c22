// Measures the running demo over HTTP: node bench/load.mjs http://127.0.0.1:8080
// Every loop is bounded; nothing is changed but the demo driver's session.
import { Person, here, quantile } from './person.mjs';

const me = new Person(here(process.argv[2] ?? 'http://127.0.0.1:8080'));
const call = (method, path, body) => me.call(method, path, body);

async function measure(name, times, at, work) {
  for (let i = 0; i < Math.min(60, times); i++) await work(i);
  const took = [];
  const lane = async (first) => {
    for (let i = first; i < times; i += at) {
      const start = performance.now();
      await work(i);
      took.push(performance.now() - start);
    }
  };
  await Promise.all(Array.from({ length: at }, (_, k) => lane(k)));
  took.sort((a, b) => a - b);
  const row = { name, calls: times, at, p50: quantile(took, 0.5), p95: quantile(took, 0.95), most: took.at(-1) };
  console.log(`${name.padEnd(34)} ${String(times).padStart(5)} × ${at}  p50 ${row.p50.toFixed(1)} ms  p95 ${row.p95.toFixed(1)} ms  most ${row.most.toFixed(1)} ms`);
  return row;
}

await me.demo();
const paddock = await call('GET', '/api/paddock');
const id = paddock.reference;
const view = await call('GET', `/api/references/${id}`);
const entry = view.working.content.corners[0];
const dragged = (i) => ({
  ...entry,
  points: entry.points.map((p) => (p.kind === 'BRAKE' ? { ...p, station: p.station - 20 + (i % 40) / 2 } : p)),
});

const yardstick = await measure('yardstick: who is signed in', 600, 1, () => call('GET', '/api/session'));
const drag = await measure('answer while dragging', 600, 1, (i) => call('POST', `/api/references/${id}/answer`, dragged(i)));
await measure('answer while dragging, 4 at once', 400, 4, (i) => call('POST', `/api/references/${id}/answer`, dragged(i)));
const shaped = view.working.content.corners.find((e) => e.pedals);
const other = (e, i) => ({
  ...e,
  points: e.points.map((p) => (p.kind === 'BRAKE' ? { ...p, station: p.station - (i % 20) / 2 } : p)),
});
if (shaped) await measure('answer, shape and another line', 400, 1, (i) => call('POST', `/api/references/${id}/answer`, other(shaped, i)));
const variant = view.working.content.variants[0];
if (variant) {
  await measure('answer on another day', 400, 1, (i) =>
    call('POST', `/api/references/${id}/variants/answer`, { variant, entry, edited: other(entry, i) }),
  );
  await measure('all corners on another day', 60, 1, () =>
    call('POST', `/api/references/${id}/variants/lap`, { variant, entries: view.working.content.corners }),
  );
}
await measure('a question compared', 60, 1, () => call('POST', `/api/references/${id}/choices`, { entry, question: 'BRAKE_SHAPE' }));
await measure('linked corners, the picture', 40, 1, () =>
  call('POST', `/api/references/${id}/compromise`, { corner: 'c9', school: 'GIVE_FIRST', most: 1 }),
);
await measure('the whole lap checked', 60, 1, () => call('GET', `/api/references/${id}/overview`));
for (const r of paddock.references) {
  const opened = await call('GET', `/api/references/${r.id}`);
  const { corners, variants } = opened.working.content;
  await measure(`open ${corners.length} corners, ${variants.length} days`, 200, 1, () => call('GET', `/api/references/${r.id}`));
}
await measure('paddock', 200, 1, () => call('GET', '/api/paddock'));
const start = performance.now();
await call('POST', '/api/references', { layoutId: view.layoutId, vehicleId: view.vehicleId, name: 'measured' });
console.log(`draft of a new reference, once       ${(performance.now() - start).toFixed(0)} ms`);
console.log(`dragging against the yardstick, p50  ${(drag.p50 / yardstick.p50).toFixed(1)} ×`);

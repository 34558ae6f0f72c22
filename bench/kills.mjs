// Kills server and database in the middle of things, and looks whether all that was acknowledged is there, once:
//   node bench/kills.mjs LAUNCHER DATA INBOX POSTMASTER_PID_FILE [rounds] [seed]
// LAUNCHER is ./marvek, started in DATA. Only the processes of that folder are ended.
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, readdirSync, writeFileSync, utimesSync } from 'node:fs';
import { Person, chances, pause } from './person.mjs';

const [, , launcher, data, inbox, postmaster, count = '50', from = '1'] = process.argv;
const chance = chances(Number(from));
const env = { ...process.env, MARVEK_DATA: data, MARVEK_PORT: '0' };
function start() {
  execFileSync(launcher, ['start'], { env, stdio: ['ignore', 'inherit', 'inherit'] });
  return readFileSync(`${data}/address`, 'utf8').trim();
}
const me = new Person(start());
await me.enter();
const { id } = await me.reference();
const first = await me.job(`/api/references/${id}/logger`, { laps: 2, habits: [], live: false, seed: 1 });
const table = (await me.raw('GET', `/api/recordings/${first}/file`)).text.split('\r\n');
const run = (await me.call('GET', `/api/references/${id}/runs`)).runs[0].id;
const watched = `${inbox}/${id}`;
mkdirSync(watched, { recursive: true });
execFileSync('chmod', ['-R', 'a+rwX', watched]);

let made = 0;
/** The recording with a number in its last row, so that no two are the same file. */
function another() {
  const rows = [...table];
  const cells = rows[rows.length - 2].split(',');
  cells[0] = (Number(cells[0]) + ++made * 1e-6).toFixed(6);
  rows[rows.length - 2] = cells.join(',');
  return rows.join('\r\n');
}
const acknowledged = { revisions: [], recordings: [], dropped: [] };
let reads = 0;
async function act(stop) {
  const doing = [
    async () => {
      const name = `sent-${made}.csv`;
      const sent = await me.raw('POST', `/api/runs/${run}/recordings?name=${name}`, another(), 'application/octet-stream');
      if (sent.status === 201) acknowledged.recordings.push([JSON.parse(sent.text).id, name]);
    },
    async () => {
      const opened = await me.call('GET', `/api/references/${id}`);
      const reason = `revision ${++reads}`;
      await me.call('POST', `/api/references/${id}/revisions`, { version: opened.working.version, reason });
      acknowledged.revisions.push(reason);
    },
    async () => {
      const name = `dropped-${made}.csv`;
      writeFileSync(`${watched}/${name}`, another());
      execFileSync('chmod', ['a+r', `${watched}/${name}`]);
      const old = new Date(Date.now() - 60_000);
      utimesSync(`${watched}/${name}`, old, old);
      acknowledged.dropped.push(name);
      await pause(400);
    },
  ];
  for (let i = 0; !stop.now; i++) {
    try {
      await doing[i % doing.length]();
    } catch {
      if (!stop.now) await pause(50);
    }
  }
}
const kills = { server: 0, database: 0 };
for (let round = 0; round < Number(count); round++) {
  const stop = { now: false };
  const acting = act(stop);
  await pause(300 + 2500 * chance());
  if (chance() < 0.67) {
    process.kill(Number(readFileSync(`${data}/server.pid`, 'utf8')), 'SIGKILL');
    kills.server++;
  } else {
    process.kill(Number(readFileSync(postmaster, 'utf8').split('\n')[0]), 'SIGKILL');
    kills.database++;
    await pause(500);
    process.kill(Number(readFileSync(`${data}/server.pid`, 'utf8')), 'SIGKILL');
  }
  stop.now = true;
  await acting;
  await pause(700);
  me.base = start();
}
// All that was begun comes to its end.
let files;
const until = Date.now() + 240_000;
do {
  await pause(2000);
  const runs = (await me.call('GET', `/api/references/${id}/runs`)).runs;
  files = runs.flatMap((r) => r.recordings);
} while (
  Date.now() < until &&
  (files.some((f) => ['STORED', 'WORKING'].includes(f.state)) ||
    acknowledged.dropped.some((n) => !files.some((f) => f.name === n)))
);
const wrong = [];
for (const [rid, name] of acknowledged.recordings) {
  const there = files.filter((f) => f.id === rid);
  if (there.length !== 1) wrong.push(`${name} acknowledged, ${there.length} there`);
  else if (there[0].state !== 'DONE') wrong.push(`${name} is ${there[0].state}`);
}
for (const name of acknowledged.dropped) {
  const there = files.filter((f) => f.name === name);
  if (there.length !== 1) wrong.push(`${name} dropped, ${there.length} there`);
  else if (there[0].state !== 'DONE') wrong.push(`${name} is ${there[0].state}`);
}
const revisions = (await me.call('GET', `/api/references/${id}/revisions`)).map((r) => r.reason);
for (const reason of acknowledged.revisions) {
  const there = revisions.filter((r) => r === reason).length;
  if (there !== 1) wrong.push(`${reason} acknowledged, ${there} there`);
}
const left = readdirSync(watched).filter((n) => n.endsWith('.csv'));
const taking = (() => {
  try {
    return readdirSync(`${watched}/taking`);
  } catch {
    return [];
  }
})();
for (const n of [...left, ...taking]) wrong.push(`${n} is left in the folder`);
console.log(
  `${kills.server} × server and ${kills.database} × both killed, seed ${from}: ${acknowledged.revisions.length} revisions, ${acknowledged.recordings.length} recordings and ${acknowledged.dropped.length} dropped files acknowledged, ${wrong.length} wrong`,
);
wrong.slice(0, 20).forEach((w) => console.log('   ' + w));
spawnSync(launcher, ['stop'], { env, stdio: 'ignore' });
process.exit(wrong.length ? 1 : 0);

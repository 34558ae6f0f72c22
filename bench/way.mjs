// Which files a request passes: node bench/way.mjs ADDRESS AGENT_PORT
// The server must run with JaCoCo's agent as a TCP server (./marvek way starts one so), its classes
// lie in core/target and server/target. Forgets what ran, asks, reads what ran: five times, and a
// file counts that ran each time, so that what else happened in a moment does not.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Person, blob, form, here, pause } from './person.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const me = new Person(here(process.argv[2] ?? 'http://127.0.0.1:8080'));
const agent = process.argv[3] ?? '6300';
const cli = join(root, 'bench/target/way/jacococli.jar');
const folder = mkdtempSync(join(tmpdir(), 'way-'));
const java = (...args) => execFileSync('java', ['-jar', cli, ...args, '--quiet'], { stdio: ['ignore', 'ignore', 'inherit'] });

/** Files of which a line ran since this was asked last, with how many lines each. */
function ran() {
  const exec = join(folder, 'way.exec');
  const xml = join(folder, 'way.xml');
  rmSync(exec, { force: true });
  java('dump', '--address', '127.0.0.1', '--port', agent, '--destfile', exec, '--reset');
  const classes = ['core', 'server'].flatMap((m) => ['--classfiles', join(root, m, 'target/classes')]);
  java('report', exec, ...classes, '--xml', xml);
  const files = new Map();
  for (const [, name, body] of readFileSync(xml, 'utf8').matchAll(/<package name="([^"]+)">(.*?)<\/package>/gs)) {
    for (const [, file, lines] of body.matchAll(/<sourcefile name="([^"]+)">(.*?)<\/sourcefile>/gs)) {
      const covered = [...lines.matchAll(/ ci="(\d+)"/g)].filter((m) => m[1] !== '0').length;
      if (covered > 0) files.set(`${name}/${file}`, covered);
    }
  }
  return files;
}

/** What a file is: data alone, a rule behind its registry, a bound before every request, or a stop on the way. */
function kind(file) {
  if (/^marvek\/server\/(guard|access)\//.test(file)) return 'bound';
  if (/\/(habits|checks)\//.test(file)) return 'rule';
  const path = ['core', 'server'].map((m) => join(root, m, 'src/main/java', file)).find((p) => {
    try {
      return readFileSync(p);
    } catch {
      return false;
    }
  });
  const text = path ? readFileSync(path, 'utf8') : '';
  if (/^@Entity|^public (sealed )?(record|enum|interface)\b|^(sealed )?(record|enum|interface)\b/m.test(text)) return 'data';
  return 'stop';
}

async function way(name, ask) {
  await ask();
  let always = null;
  for (let i = 0; i < 5; i++) {
    ran();
    await ask();
    const now = ran();
    always = always ? new Map([...always].filter(([f]) => now.has(f))) : now;
  }
  const by = { stop: [], data: [], rule: [], bound: [] };
  for (const [file, lines] of always) by[kind(file)].push([file.replace('marvek/', ''), lines]);
  console.log(`${name}: ${always.size} files; ${by.stop.length} stops, ${by.data.length} data alone, ${by.rule.length} rules behind a registry, ${by.bound.length} bounds`);
  for (const [file, lines] of by.stop.sort()) console.log(`  ${file} ${lines}`);
  if (process.argv[4] === 'all') for (const k of ['data', 'rule', 'bound']) for (const [file, lines] of by[k].sort()) console.log(`  (${k}) ${file} ${lines}`);
}

await me.demo();
const { reference } = await me.call('GET', '/api/paddock');
const view = await me.call('GET', `/api/references/${reference}`);
const entry = view.working.content.corners[0];
let moved = 0;
await way('a flag dragged', () => {
  moved += 0.5;
  const points = entry.points.map((p) => (p.kind === 'BRAKE' ? { ...p, station: p.station - 10 + moved } : p));
  return me.call('POST', `/api/references/${reference}/answer`, { ...entry, points });
});

const recording = await me.job(`/api/references/${reference}/logger`, { laps: 2, habits: [], live: false, seed: 1 });
const rows = (await me.raw('GET', `/api/recordings/${recording}/file`)).text.split('\r\n');
const { id: run } = (await me.settled(reference)).find((r) => r.recordings.some((f) => f.id === recording));
let sent = 0;
await way('a recording, to its debrief', async () => {
  // No two files may be the same, or the second is not read.
  const cells = rows.at(-2).split(',');
  cells[cells.length - 1] = String(++sent);
  const file = [...rows.slice(0, -2), cells.join(','), ''].join('\r\n');
  const stored = await me.raw('POST', `/api/runs/${run}/recordings?name=run${sent}.csv`, file, 'application/octet-stream');
  if (stored.status !== 201) throw new Error(stored.text);
  // Read by a job; asking whether it is done would be another way.
  await pause(Number(process.env.MARVEK_WAY_WAIT ?? 8000));
  await me.call('GET', `/api/runs/${run}/debrief`);
});
rmSync(folder, { recursive: true });

// Slow and hostile connections at a running demo, while somebody reads: node bench/strangers.mjs http://127.0.0.1:8080
// The attacker is a niced process of its own. Ends with 1 where the reader waits too long or gets an error.
import { spawn } from 'node:child_process';
import net from 'node:net';
import { Person, here, pause, quantile } from './person.mjs';

const base = here(process.argv[2] ?? 'http://127.0.0.1:8080');
const url = new URL(base);

if (process.argv[3] === 'attack') await attack(process.argv[4]);
else await watch();

/** Opens what it can, and opens again what is broken off. */
async function attack(kind) {
  const head = (method, path, more) => `${method} ${path} HTTP/1.1\r\nHost: x\r\n${more}`;
  const body = head('POST', '/api/session', 'Content-Type: application/json\r\nContent-Length: 100000\r\n\r\n{');
  const whole = head('GET', '/v3/api-docs', '\r\n');
  const open = (i) => {
    const s = net.connect({ host: '127.0.0.1', port: url.port, localAddress: `127.0.0.${2 + (i % 8)}` });
    let timer;
    s.on('error', () => {});
    s.on('connect', () => {
      if (kind === 'bodies') s.write(body);
      if (kind === 'heads') s.write(head('GET', '/', 'X-A: '));
      if (kind === 'readers') {
        s.pause();
        s.write(whole.repeat(200));
      }
      if (kind !== 'readers' && kind !== 'silent') timer = setInterval(() => s.write(' '), 5000);
    });
    if (kind !== 'readers') s.resume();
    s.on('close', () => {
      clearInterval(timer);
      setTimeout(() => open(i), 200);
    });
  };
  for (let i = 0; i < (kind === 'bodies' ? 220 : 400); i++) open(i);
  await new Promise(() => {});
}

async function watch() {
  const reader = await new Person(base).demo();
  const id = (await reader.call('GET', '/api/paddock')).reference;
  let errors = 0;
  const measure = async (seconds) => {
    const took = [];
    const until = performance.now() + seconds * 1000;
    while (performance.now() < until) {
      for (const path of ['/api/paddock', `/api/references/${id}`, `/api/references/${id}/runs`]) {
        try {
          const r = await reader.ask('GET', path);
          took.push(r.took);
          if (r.status !== 200) errors++;
        } catch {
          errors++;
        }
        await pause(60);
      }
    }
    return quantile(took, 0.95);
  };
  await measure(5);
  const quiet = await measure(12);
  let worst = 0;
  for (const kind of ['bodies', 'heads', 'readers', 'silent']) {
    const attacker = spawn('nice', ['-n', '19', process.execPath, process.argv[1], base, 'attack', kind], { stdio: 'ignore' });
    await pause(2000);
    const during = await measure(15);
    attacker.kill();
    worst = Math.max(worst, during);
    console.log(`${kind.padEnd(8)} a reader's p95 ${during.toFixed(0)} ms, ${quiet.toFixed(0)} ms without`);
    await pause(1000);
  }
  const allowed = Math.max(500, 5 * quiet);
  console.log(`allowed ${allowed.toFixed(0)} ms, ${errors} errors`);
  process.exit(worst > allowed || errors ? 1 : 0);
}

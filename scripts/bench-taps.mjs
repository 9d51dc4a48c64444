// npm run bench:taps [folder …]: what a tap costs the server, in each folder: a shot, a head trimmed, one painted, an
// undo, and ten devices at one tap a second each, while nobody and while somebody reads Books. Nothing is asserted.
// Without a folder it is the demo's year, and the ten years of `npm run ten-years` where they were made.
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { ensureBuilt, ensureInstalled } from './lib.mjs';
import { begun, folders, part, serve } from './workshops.mjs';

ensureInstalled();
ensureBuilt();
/** CPU that a process has had so far, ms (proc(5): fields 14 and 15, in ticks of 10 ms). */
const cpuMs = (pid) => {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ');
  return 10 * (Number(fields[11]) + Number(fields[12]));
};

for (const folder of folders()) {
  console.log(`\n${folder}`);
  const { call, pid, stop } = await serve(folder);
  const { ticket, pour } = await begun(call);
  let at = Date.now() - 3_600_000;
  const say = (path, said) => call('POST', `${path}/entries`, { id: randomUUID(), at: (at += 1000), ...said });
  async function timed(what, times, tap) {
    const taken = [];
    const before = cpuMs(pid);
    for (let nth = 0; nth < times; nth++) {
      const began = performance.now();
      await tap(nth);
      taken.push(performance.now() - began);
    }
    const cpu = (cpuMs(pid) - before) / times;
    const figures = `median ${part(taken, 0.5).toFixed(1)} ms, 99 % ${part(taken, 0.99).toFixed(1)} ms`;
    console.log(`${what}: ${figures}, ${cpu.toFixed(1)} ms of CPU, of ${times}`);
  }
  const pot = `/pours/${pour.id}`;
  await say(pot, { kind: 'charge', massKg: 4, potC: 20 });
  const loads = pour.setup.loads.filter(({ ticketIds }) => ticketIds.length > 0);
  const { moldId } = loads[0];
  const positions = loads.filter((load) => load.moldId === moldId).map(({ position }) => position);
  // Heads enough for all that is tapped below.
  const shots = Math.ceil(300 / positions.length);
  await timed('a shot', shots, () => say(pot, { kind: 'shot', moldId, positions }));
  await say(pot, { kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 0.5 });
  const own = `/tickets/${ticket.id}`;
  const [first, second] = ticket.route;
  const good = (step) => say(own, { kind: 'good', step: step.key, count: 1 });
  await timed(`a head through ${first.key}`, 80, () => good(first));
  await timed(`a head through ${second.key}`, 40, () => good(second));
  await timed('an undo, with the reading of its ticket', 10, async () => {
    const { log } = await call('GET', own);
    const gone = new Set(log.map(({ target }) => target));
    const last = log.findLast(({ id, kind }) => kind === 'good' && !gone.has(id));
    await say(own, { kind: 'undo', target: last.id });
  });
  for (const reading of [false, true]) {
    const taken = [];
    let over = false;
    const reader = (async () => {
      while (reading && !over) await call('GET', '/books/quality');
    })();
    const device = async () => {
      await new Promise((resolve) => setTimeout(resolve, 1000 * Math.random()));
      for (let second = 0; second < 8; second++) {
        const began = performance.now();
        await good(first);
        taken.push(performance.now() - began);
        await new Promise((resolve) => setTimeout(resolve, Math.max(0, 1000 - (performance.now() - began))));
      }
    };
    await Promise.all(Array.from({ length: 10 }, device));
    over = true;
    await reader;
    const figures = `median ${part(taken, 0.5).toFixed(1)} ms, 99 % ${part(taken, 0.99).toFixed(1)} ms`;
    console.log(`ten devices${reading ? ', while Books are read' : ''}: ${figures}, of ${taken.length}`);
  }
  await stop();
}

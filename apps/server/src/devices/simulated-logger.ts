import { createServer, type Server, type Socket } from 'node:net';
import type { AddressInfo } from 'node:net';
import {
  bakeTemperaturesC,
  castMassKg,
  channelLine,
  greetingLine,
  moldSession,
  readingLine,
  seeded,
  shotStep,
  simulatePot,
  typicalHook,
  type MoldStep,
  type PotEvent,
} from '@schmelz/core';

/** What its probes feel over one evening, from the models, second by second; then the evening begins again. */
interface Evening {
  seconds: number;
  channels: { name: string; at: (second: number) => number }[];
}

const CYCLE_S = 42;
const SHOT_KG = 0.085;
const MELTED_S = 1100;
const SHOTS = 80;

/** Straight lines between the points of a trace. */
function along(points: readonly { atS: number; c: number }[]): (second: number) => number {
  return (second) => {
    const next = points.findIndex((point) => point.atS > second);
    if (next <= 0) return (next === 0 ? points[0]! : points.at(-1)!).c;
    const [a, b] = [points[next - 1]!, points[next]!];
    return b.atS > a.atS ? a.c + ((b.c - a.c) * (second - a.atS)) / (b.atS - a.atS) : b.c;
  };
}

function evening(): Evening {
  const seconds = MELTED_S + SHOTS * CYCLE_S + 900;
  const events: PotEvent[] = Array.from({ length: SHOTS }, (_, i) => ({
    atS: MELTED_S + i * CYCLE_S,
    kind: 'take',
    kg: SHOT_KG * 0.9,
  }));
  for (let i = 20; i < SHOTS; i += 20)
    events.push({ atS: MELTED_S + i * CYCLE_S + 20, kind: 'add', kg: 0.4, fromC: 60 });
  const pot = simulatePot({
    pot: { powerW: 660, lossWPerK: 0.6 },
    leadKg: 8.5,
    fromC: 22,
    roomC: 20,
    setC: 374,
    seconds,
    events,
    everyS: 5,
  });
  const steps: MoldStep[] = [
    { kind: 'pot top', seconds: MELTED_S, potC: 220 },
    ...Array.from({ length: SHOTS }, () => shotStep({ kg: SHOT_KG, metalC: 371, cycleS: CYCLE_S })),
    { kind: 'wait', seconds: 900 },
  ];
  const mold = moldSession({ block: { bodyKg: 0.6, lossWPerK: 0.5 }, steps });
  const bake = { headLagS: 170, airC: 177, ovenLagS: 200, overshootK: 9 };
  const oven = along(
    bakeTemperaturesC(
      bake,
      Array.from({ length: Math.ceil(seconds / 20) + 1 }, (_, i) => 10 * i),
    ).map(({ atS, ovenC }) => ({ atS, c: ovenC })),
  );
  return {
    seconds,
    channels: [
      { name: 'pot', at: along(pot.points.map(({ atS, temperatureC }) => ({ atS, c: temperatureC }))) },
      { name: 'mold', at: along(mold.points.map(({ atS, backC }) => ({ atS, c: backC }))) },
      // The oven is lit when half the heads are cast.
      {
        name: 'oven',
        at: (second) => (second < seconds / 2 ? 20 : oven(second - seconds / 2) + 3 * Math.sin(second / 45)),
      },
    ],
  };
}

/** One head after another is laid on the scale: so long the pan is empty, so long a head lies on it. */
const PAN_EMPTY_S = 4;
const ON_PAN_S = 7;
const HEAD_SPREAD = 0.004;

/**
 * What the scale shows: 10 g heads on a 2/0 hook as the model casts them, each a little different, settling in a
 * second.
 */
function scaleKg(second: number, random: () => number): number {
  const round = second % (PAN_EMPTY_S + ON_PAN_S);
  if (round < PAN_EMPTY_S) return 0;
  const nth = Math.floor(second / (PAN_EMPTY_S + ON_PAN_S));
  const own = seeded(nth + 1);
  const head =
    (castMassKg({ nominalMassKg: 0.01 }) + typicalHook('2/0').massKg) *
    (1 + HEAD_SPREAD * (own() + own() + own() - 1.5));
  return round === PAN_EMPTY_S ? head * (0.7 + 0.2 * random()) : head + 0.4e-5 * (random() - 0.5);
}

const NOISE_K = 0.6;
const DRIFT_K = 1.5;
const DROP_OUT_SHARE = 0.004;

interface SimulatedLogger {
  port: number;
  stop(): Promise<void>;
}

/**
 * A logger with three thermocouples and a scale that are not there: it serves the line protocol on loopback, one
 * reading a second of each channel from the models, with noise, a slow drift and drop-outs; the scale settles in a
 * second or two.
 * @param startS where in its evening it begins; @param everyMs pace, shorter in tests
 */
export async function startSimulatedLogger({
  port = 0,
  startS = 0,
  everyMs = 1000,
  seed = 7,
} = {}): Promise<SimulatedLogger> {
  const { seconds, channels } = evening();
  const random = seeded(seed);
  const sockets = new Set<Socket>();
  let tick = startS;
  const server: Server = createServer((socket) => {
    sockets.add(socket);
    socket.on('close', () => sockets.delete(socket));
    socket.on('error', () => socket.destroy()); // the other end went away
    socket.write(
      greetingLine() +
        channels.map(({ name }, i) => channelLine(i + 1, name, 'C')).join('') +
        channelLine(channels.length + 1, 'scale', 'kg'),
    );
  });
  const timer = setInterval(() => {
    tick += 1;
    const drift = DRIFT_K * Math.sin(tick / 1300);
    const lines = channels.map(({ at }, i) => {
      const noise = NOISE_K * (random() + random() + random() - 1.5);
      const dropped = random() < DROP_OUT_SHARE;
      return readingLine(i + 1, Date.now(), dropped ? null : at(tick % seconds) + drift + noise);
    });
    lines.push(readingLine(channels.length + 1, Date.now(), scaleKg(tick, random), 5));
    for (const socket of sockets) socket.write(lines.join(''));
  }, everyMs);
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  return {
    port: (server.address() as AddressInfo).port,
    async stop() {
      clearInterval(timer);
      for (const socket of sockets) socket.destroy();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}

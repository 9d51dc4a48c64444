import type { MoldBlock } from '../mold/block.ts';
import { moldSession, type MoldStep } from '../mold/session.ts';
import type { WarmSchool } from '../mold/warm-plan.ts';
import { DRY_KG, simulatePot, type PotBody, type PotEvent } from '../pot/simulate.ts';
import { standing } from './log.ts';
import type { PourEntry, PourLog, PourSetup } from './pour.ts';

/** A pour as heat sees it. */
export interface SessionInput {
  setup: PourSetup;
  log: PourLog;
  block: MoldBlock;
  /** Every open cavity filled, heads and sprues: what a blank shot weighs. */
  fullShotKg: number;
  warmed: WarmSchool;
  pot: PotBody;
  metalC: number;
  roomC: number;
  openS: number;
  now: number;
}
export interface SessionPoint {
  /** ms since 1970 */
  at: number;
  temperatureC: number;
}
export interface SessionHeat {
  mold: SessionPoint[];
  pot: (SessionPoint & { leadKg: number })[];
  /** Now, by the model; null before the pot was on. */
  moldC: number | null;
  potC: number | null;
  potKg: number;
}

/** A mold on the rim while the pot melts: what it lies on, on average. Common practice, no source. */
const RIM_C = 240;
/** Sprues and blank shots go back while they are warm. */
const BACK_C = 60;
const LONGEST_S = 86_400;

/**
 * Heat of mold and pot over a pour, from its log alone: what the bench coaches by and what the session is replayed with.
 * Shots leave their heat in the mold and their metal out of the pot; blank shots go back; between shots the mold is shut
 * until it may be opened, then open. Pure: the same log gives the same curves.
 */
export function sessionHeat(input: SessionInput): SessionHeat {
  const entries = standing<PourEntry>(input.log);
  const charge = entries.find((entry) => entry.kind === 'charge');
  if (charge?.kind !== 'charge') return { mold: [], pot: [], moldC: null, potC: null, potKg: 0 };
  const from = charge.at;
  const end = Math.max(from, entries.some((entry) => entry.kind === 'close') ? entries.at(-1)!.at : input.now);
  const seconds = Math.min(LONGEST_S, (end - from) / 1000);
  const since = (at: number) => Math.min(seconds, Math.max(0, (at - from) / 1000));

  const poured = entries.filter((entry) => entry.kind === 'shot' || entry.kind === 'blank');
  const filledKg = (positions: readonly number[]) =>
    input.setup.loads.filter((load) => positions.includes(load.position)).reduce((sum, load) => sum + load.leadKg + load.sprueKg, 0); // prettier-ignore
  const kgOf = (entry: PourEntry) => (entry.kind === 'shot' ? filledKg(entry.positions) : input.fullShotKg);
  const firstS = poured[0] ? since(poured[0].at) : seconds;
  const onRim = input.warmed !== 'blank shots';
  const steps: MoldStep[] = [
    onRim ? { kind: 'pot top', seconds: firstS, potC: RIM_C } : { kind: 'wait', seconds: firstS, open: false },
    ...poured.map((entry, i): MoldStep => {
      const gap = (poured[i + 1] ? since(poured[i + 1]!.at) : seconds) - since(entry.at);
      const closedS = Math.min(input.openS, gap);
      return { kind: 'shot', kg: Math.max(0.001, kgOf(entry)), metalC: input.metalC, closedS, openS: gap - closedS };
    }),
  ];
  // A gap of hours is a wait after its shot, since one cycle has its bounds.
  const walked = steps.flatMap((step): MoldStep[] =>
    step.kind === 'shot' && step.openS > 3600
      ? [
          { ...step, openS: 0 },
          { kind: 'wait', seconds: step.openS },
        ]
      : [step],
  );
  const mold = moldSession({ block: input.block, roomC: input.roomC, steps: walked }).points;

  let leadKg = Math.max(DRY_KG, charge.massKg);
  const events: PotEvent[] = [];
  for (const entry of entries) {
    const atS = since(entry.at);
    if (entry.kind === 'feed') {
      const kg = Math.min(entry.massKg, 50 - leadKg);
      leadKg += kg;
      events.push({ atS, kind: 'add', kg, fromC: BACK_C });
    }
    if (entry.kind === 'shot') {
      const kg = Math.min(kgOf(entry), Math.max(0, leadKg - DRY_KG - 1e-6));
      leadKg -= kg;
      if (kg > 0) events.push({ atS, kind: 'take', kg });
    }
  }
  const trace = simulatePot({
    pot: input.pot,
    leadKg: Math.min(50, Math.max(DRY_KG, charge.massKg)),
    fromC: charge.potC,
    roomC: input.roomC,
    setC: input.metalC,
    seconds,
    events,
    everyS: 15,
  });
  const at = (atS: number) => from + atS * 1000;
  return {
    mold: mold.map((point) => ({ at: at(point.atS), temperatureC: point.meanC })),
    pot: trace.points.map((point) => ({ at: at(point.atS), temperatureC: point.temperatureC, leadKg: point.leadKg })),
    moldC: mold.at(-1)!.meanC,
    potC: trace.points.at(-1)!.temperatureC,
    potKg: trace.points.at(-1)!.leadKg,
  };
}

import { FILL_DEFAULTS, type FillCavity } from '../fill/fill-index.ts';
import { fillLevers } from '../fill/levers.ts';
import { blockNodes, meanC, OPEN_LOSS_FACTOR, relax, type MoldBlock } from '../mold/block.ts';
import { sootDue, type SootSchool } from '../mold/soot.ts';
import { blankShots, MOLD_READY_C, MOLD_TOO_HOT_C } from '../mold/warm-up.ts';
import { largestRefill } from '../pot/refill.ts';
import type { PotBody } from '../pot/simulate.ts';
import { SOFT_LEAD } from '../metal/alloy.ts';
import { standing } from './log.ts';
import type { PourEntry, PourLog, PourSetup, PourState } from './pour.ts';

/** One thing the coach says. Masses and temperatures stand apart, to be written in the maker's units. */
export interface Advice {
  kind:
    'dry' | 'cold metal' | 'blank' | 'wait' | 'shorts' | 'flash' | 'smoke' | 'feed' | 'stream' | 'skim' | 'dial' | 'go';
  says: string;
  /** What to try first, in order, with what it would bring. */
  first?: string[];
  kg?: number;
  /** stop: before the next shot; watch: soon; quiet: nothing to do. */
  weight: 'stop' | 'watch' | 'quiet';
}

export interface CoachCavity {
  position: number;
  fill: FillCavity;
  shotsSinceSmoked: number;
  everSmoked: boolean;
}
export interface CoachInput {
  setup: PourSetup;
  log: PourLog;
  state: PourState;
  /** By the model or, where there is one, by the probe. */
  moldC: number;
  potC: number;
  potKg: number;
  block: MoldBlock;
  fullShotKg: number;
  pot: PotBody;
  capacityKg: number;
  metalC: number;
  roomC: number;
  heelKg: number;
  sootSchool: SootSchool;
  cavities: readonly CoachCavity[];
  now: number;
}

/** Old skin is taken off about this often, and the stream looked at every so many shots. Common practice, no source. */
const SKIM_EVERY_S = 20 * 60;
const STREAM_EVERY_SHOTS = 15;
/** So many shorts among a cavity's last casts are no chance. */
const SHORTS = 3;
const LOOK_BACK = 6;
/** A refill smaller than this is not worth lifting the lid for. */
const WORTH_FEEDING_KG = 0.15;
const KEEP_ABOVE_MELTING_K = 15;

/** Seconds that the mold must lie open until it is back in its window. */
function coolingS({ block, roomC }: CoachInput, moldC: number): number {
  const nodes = blockNodes(block);
  const after = (seconds: number) =>
    meanC(nodes, relax(nodes, { faceC: moldC, backC: moldC }, seconds, roomC, OPEN_LOSS_FACTOR).heat);
  let [low, high] = [0, 1800];
  for (let i = 0; i < 30; i++) {
    const middle = (low + high) / 2;
    if (after(middle) > MOLD_TOO_HOT_C - 5) low = middle;
    else high = middle;
  }
  return high;
}

const shotWord = (n: number) => `${n} blank ${n === 1 ? 'shot' : 'shots'}`;

/** What the mold's heat asks for before the next shot. */
function moldAdvice(input: CoachInput): Advice | null {
  const { block, fullShotKg, metalC, roomC, moldC, state } = input;
  if (state.phase !== 'pouring' && state.phase !== 'paused') return null;
  if (moldC < MOLD_READY_C - 10) {
    const { shots } = blankShots({ moldKg: block.bodyKg, moldMetal: block.metal, lossWPerK: block.lossWPerK, capacityShare: block.capacityShare, shotKg: fullShotKg, metalC, roomC, fromC: moldC }); // prettier-ignore
    return { kind: 'blank', says: `The mold has gone cold: ${shotWord(shots)} before you load again.`, weight: 'stop' };
  }
  if (moldC > MOLD_TOO_HOT_C) {
    const seconds = Math.ceil(coolingS(input, moldC) / 5) * 5;
    return { kind: 'wait', says: `The mold is too hot: leave it open for ${seconds} s, then go on slower.`, weight: 'watch' }; // prettier-ignore
  }
  return null;
}

function potAdvice(input: CoachInput): Advice[] {
  const { potKg, potC, capacityKg, pot, metalC, roomC, heelKg, state } = input;
  const advice: Advice[] = [];
  if (state.phase === 'cold' || state.phase === 'closed' || state.phase === 'enough') return advice;
  const refill = largestRefill({ potKg: Math.max(0.06, potKg), potC, capacityKg, pot, keepAboveC: SOFT_LEAD.liquidusC + KEEP_ABOVE_MELTING_K, pourC: metalC, roomC }); // prettier-ignore
  const wait = Math.ceil(refill.recoverS / 10) * 10;
  if (state.phase === 'pouring' && potC < SOFT_LEAD.liquidusC + KEEP_ABOVE_MELTING_K) {
    advice.push({
      kind: 'cold metal',
      says: `The metal is barely molten: it pours again in about ${wait} s.`,
      weight: 'stop',
    });
  }
  if (potKg < heelKg && state.shotsToGo > 0) {
    advice.push({ kind: 'dry', says: 'Nearly at the heel: feed it or stop. Never run the pot dry.', kg: refill.addKg, weight: 'stop' }); // prettier-ignore
  } else if (potKg < 0.45 * capacityKg && state.shotsToGo > 3 && refill.addKg > WORTH_FEEDING_KG) {
    advice.push({ kind: 'feed', says: `Room to feed: up to this much, dry and warm, then wait ${wait} s.`, kg: refill.addKg, weight: 'quiet' }); // prettier-ignore
  }
  if (state.chargedKg > 0 && potKg < 0.5 * state.chargedKg && state.shotsToGo > 0) {
    advice.push({ kind: 'dial', says: 'Half of it is gone: less metal runs hotter at the same mark. Watch the skin, turn down a little.', weight: 'quiet' }); // prettier-ignore
  }
  return advice;
}

/** Shorts in the same cavity, with what to try first by the fill model at this session's settings. */
function shortsAdvice(input: CoachInput): Advice[] {
  const { state, moldC, metalC, roomC, cavities } = input;
  return cavities.flatMap(({ position, fill, shotsSinceSmoked }) => {
    const casts = state.shots
      .flatMap((shot) => shot.heads.filter((head) => head.position === position))
      .slice(-LOOK_BACK);
    const shorts = casts.filter((head) => head.verdict === 'short').length;
    if (shorts < SHORTS) return [];
    const settings = { ...FILL_DEFAULTS, moldC: Math.min(Math.max(moldC, roomC), 250), metalC, roomC, hookWarm: false, shotsSinceSmoked }; // prettier-ignore
    const first = fillLevers(fill, settings).slice(0, 3).map((lever) => `${lever.says} (index ×${lever.gain.toFixed(1)})`); // prettier-ignore
    return [{ kind: 'shorts' as const, says: `Cavity ${position}: ${shorts} shorts in its last ${casts.length}. Try first:`, first, weight: 'watch' as const }]; // prettier-ignore
  });
}

/** The last shot flashed everywhere: something holds the mold open. */
function flashAdvice({ state }: CoachInput): Advice | null {
  const heads = state.shots.at(-1)?.heads ?? [];
  if (heads.length < 2 || !heads.every((head) => head.verdict === 'flash')) return null;
  return { kind: 'flash', says: 'Flash on all of them: a hook or a crumb holds it open. Listen for the click, look along the seam.', weight: 'stop' }; // prettier-ignore
}

function routine(input: CoachInput): Advice[] {
  const { state, sootSchool, cavities, now } = input;
  if (state.phase !== 'pouring') return [];
  const entries = standing<PourEntry>(input.log);
  const advice: Advice[] = [];
  const due = cavities.filter((cavity) => sootDue(sootSchool, cavity.shotsSinceSmoked, cavity.everSmoked).due);
  if (due.length > 0) {
    const all = due.length === cavities.length;
    advice.push({ kind: 'smoke', says: `Candle due: ${all ? 'all cavities' : `cavity ${due.map((each) => each.position).join(', ')}`}.`, weight: 'watch' }); // prettier-ignore
  }
  const lastDone = (what: string) => entries.findLast((entry) => entry.kind === 'done' && entry.what === what)?.at;
  const firstShot = state.shots[0]?.at ?? now;
  if ((now - Math.max(lastDone('skimmed') ?? 0, firstShot)) / 1000 > SKIM_EVERY_S) {
    advice.push({ kind: 'skim', says: 'Skim the old skin off.', weight: 'watch' });
  }
  const since = lastDone('stream looked at') ?? 0;
  if (state.shots.filter((shot) => shot.at > since).length >= STREAM_EVERY_SHOTS) {
    advice.push({ kind: 'stream', says: 'Look at the stream: thin means shorts, clear the spout with a wire.', weight: 'watch' }); // prettier-ignore
  }
  return advice;
}

const WEIGHTS = ['stop', 'watch', 'quiet'];

/**
 * What to do before or with the next shot, the most pressing first; "keep going" where there is nothing. Judged from the
 * log, the heat of mold and pot, and the mold's own ways: pure, so it can be asked of any moment.
 */
export function coach(input: CoachInput): Advice[] {
  const all = [
    moldAdvice(input),
    flashAdvice(input),
    ...shortsAdvice(input),
    ...potAdvice(input),
    ...routine(input),
  ].filter((each): each is Advice => each !== null);
  const sorted = all.sort((a, b) => WEIGHTS.indexOf(a.weight) - WEIGHTS.indexOf(b.weight));
  const running = input.state.phase === 'pouring' && !sorted.some((each) => each.weight === 'stop');
  if (running && !sorted.some((each) => each.kind === 'wait')) sorted.push({ kind: 'go', says: 'Keep going at this pace.', weight: 'quiet' }); // prettier-ignore
  return sorted;
}

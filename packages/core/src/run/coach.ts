import { FILL_DEFAULTS } from '../fill/fill-index.ts';
import { fillLevers } from '../fill/levers.ts';
import { blockNodes, meanC, OPEN_LOSS_FACTOR, relax, type MoldBlock } from '../mold/block.ts';
import { sootDue } from '../mold/soot.ts';
import { blankShots, MOLD_TOO_HOT_C } from '../mold/warm-up.ts';
import { largestRefill } from '../pot/refill.ts';
import { hotterAsItEmptiesK, potWay } from '../pot/way.ts';
import { SOFT_LEAD } from '../metal/alloy.ts';
import { standing } from '../log/log.ts';
import { handledSays, settledLevers, workedIn } from './handling.ts';
import type { PourEntry } from './pour-log.ts';
import type { Advice, CoachInput, CoachMold } from './advice.ts';
import { weightAdvice } from './weighing.ts';
import { quantityText } from '../quantity/said.ts';

/** Old skin is taken off about this often, and the stream looked at every so many shots. Common practice, no source. */
const SKIM_EVERY_S = 20 * 60;
const STREAM_EVERY_SHOTS = 15;
/** So many shorts among a cavity's last casts are no chance. */
const SHORTS = 3;
const LOOK_BACK = 6;
/** A refill smaller than this is not worth lifting the lid for. */
const WORTH_FEEDING_KG = 0.15;
const KEEP_ABOVE_MELTING_K = 15;

/** A mold that went cold is warmed past that by so much. Common practice, no source. */
const WARMED_PAST_K = 6;

/** Seconds that a mold must lie open until it is back in its window. */
function coolingS(block: MoldBlock, moldC: number, roomC: number): number {
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
/** A mold's name, where there is more than one to mean. */
const theMold = (input: CoachInput, mold: CoachMold) => (input.setup.molds.length > 1 ? mold.name : 'The mold');
const theCavity = (input: CoachInput, mold: CoachMold, position: number) =>
  input.setup.molds.length > 1 ? `${mold.name}, cavity ${position}` : `Cavity ${position}`;

/** Whether the last thing that was poured into a mold was a blank shot. */
function isWarming({ log }: CoachInput, moldId: string): boolean {
  const last = standing<PourEntry>(log).findLast(
    (entry) => (entry.kind === 'shot' || entry.kind === 'blank') && entry.moldId === moldId,
  );
  return last?.kind === 'blank';
}

/** What a mold's heat asks for before its next shot. */
function moldAdvice(input: CoachInput, mold: CoachMold): Advice | null {
  const { metalC, roomC, state } = input;
  const { block, fullShotKg, moldC, moldId } = mold;
  if (state.phase !== 'pouring' && state.phase !== 'paused') return null;
  // A mold that has cast nothing yet is warmed by its planned blank shots.
  if (!state.molds.some((each) => each.moldId === moldId && each.shots > 0)) return null;
  const { coldBelowC } = mold;
  // Once it is being warmed it is warmed past where it went cold: it does not say go and stop in turn.
  const goesOnC = coldBelowC + WARMED_PAST_K;
  if (moldC < (isWarming(input, moldId) ? goesOnC : coldBelowC)) {
    const { shots } = blankShots({
      block,
      shotKg: fullShotKg,
      barKg: mold.barKg,
      metalC,
      alloy: input.alloy,
      roomC,
      fromC: moldC,
      readyC: goesOnC,
    });
    return {
      kind: 'blank',
      moldId,
      says: `${theMold(input, mold)} has gone cold: ${shotWord(shots)} before you load again.`,
      shots,
      weight: 'stop',
    };
  }
  if (moldC > MOLD_TOO_HOT_C) {
    const seconds = Math.ceil(coolingS(block, moldC, roomC) / 5) * 5;
    return {
      kind: 'wait',
      moldId,
      says: `${theMold(input, mold)} is too hot: leave it open for ${seconds} s, then go on slower.`,
      weight: 'watch',
    };
  }
  return null;
}

function potAdvice(input: CoachInput): Advice[] {
  const { potKg, potC, capacityKg, pot, metalC, roomC, heelKg, state, alloy = SOFT_LEAD } = input;
  const advice: Advice[] = [];
  const moldId = null;
  if (state.phase === 'cold' || state.phase === 'closed' || state.phase === 'enough') return advice;
  const refill = largestRefill({
    potKg: Math.max(0.06, potKg),
    potC,
    capacityKg,
    pot,
    keepAboveC: alloy.liquidusC + KEEP_ABOVE_MELTING_K,
    alloy,
    pourC: input.pourC ?? metalC,
    roomC,
  });
  const wait = Math.ceil(refill.recoverS / 10) * 10;
  if (state.phase === 'pouring' && potC < alloy.liquidusC + KEEP_ABOVE_MELTING_K) {
    advice.push({
      kind: 'cold metal',
      moldId,
      says: `The metal is barely molten: it pours again in about ${wait} s.`,
      weight: 'stop',
    });
  }
  if (potKg < heelKg && state.shotsToGo > 0) {
    advice.push({
      kind: 'dry',
      moldId,
      says: 'Nearly at the heel: feed it or stop. Never run the pot dry.',
      kg: refill.addKg,
      weight: 'stop',
    });
  } else if (potKg < 0.45 * capacityKg && state.shotsToGo > 3 && refill.addKg > WORTH_FEEDING_KG) {
    advice.push({
      kind: 'feed',
      moldId,
      says: `Room to feed: up to this much, dry and warm, then wait ${wait} s.`,
      kg: refill.addKg,
      weight: 'quiet',
    });
  }
  const hotterK = hotterAsItEmptiesK({ leadKg: potKg, capacityKg, potC, roomC });
  if (state.chargedKg > 0 && potKg < 0.5 * state.chargedKg && state.shotsToGo > 0) {
    advice.push({
      kind: 'dial',
      moldId,
      says: `Half of it is gone: at the same mark it runs some ${quantityText(Math.round(hotterK), 'K')} hotter than full. Watch the skin, turn down a little.`,
      weight: 'quiet',
    });
  }
  return advice;
}

/** Shorts in the same cavity, with what to try first by the fill model at this session's settings. */
function shortsAdvice(input: CoachInput, mold: CoachMold): Advice[] {
  const { state, metalC, roomC, alloy = SOFT_LEAD } = input;
  const heads = state.shots.filter((shot) => shot.moldId === mold.moldId).flatMap((shot) => shot.heads);
  return mold.cavities.flatMap(({ position, fill, shotsSinceSmoked }) => {
    const casts = heads.filter((head) => head.position === position).slice(-LOOK_BACK);
    const shorts = casts.filter((head) => head.verdict === 'short').length;
    if (shorts < SHORTS) return [];
    const moldC = Math.min(Math.max(mold.moldC, roomC), 250);
    const settings = { ...FILL_DEFAULTS, alloy, moldC, metalC, roomC, hookWarm: false, shotsSinceSmoked };
    const { handled = [] } = mold;
    const settled = settledLevers(handled, position);
    const reckoned = fillLevers(fill, settings, input.potWay)
      .filter(({ id }) => !settled.includes(id))
      .map((lever) => `${lever.says} (index ×${lever.gain.toFixed(1)})`);
    // What worked in this cavity outranks what is reckoned; what made it worse is not asked for again.
    const first = [...workedIn(handled, position).map(handledSays), ...reckoned].slice(0, 3);
    return [
      {
        kind: 'shorts' as const,
        moldId: mold.moldId,
        says: `${theCavity(input, mold, position)}: ${shorts} shorts in its last ${casts.length}. Try first:`,
        first,
        weight: 'watch' as const,
      },
    ];
  });
}

/** The last shot flashed everywhere: something holds the mold open. */
function flashAdvice({ state }: CoachInput): Advice | null {
  const shot = state.shots.at(-1);
  const heads = shot?.heads ?? [];
  if (heads.length < 2 || !heads.every((head) => head.verdict === 'flash')) return null;
  return {
    kind: 'flash',
    moldId: shot!.moldId,
    says: 'Flash on all of them: a hook or a crumb holds it open. Listen for the click, look along the seam.',
    weight: 'stop',
  };
}

function candle(input: CoachInput, mold: CoachMold): Advice | null {
  if (input.state.phase !== 'pouring') return null;
  const due = mold.cavities.filter(
    (cavity) => sootDue(mold.sootSchool, cavity.shotsSinceSmoked, cavity.everSmoked).due,
  );
  if (due.length === 0) return null;
  const which =
    due.length === mold.cavities.length ? 'all cavities' : `cavity ${due.map((each) => each.position).join(', ')}`;
  const where = input.setup.molds.length > 1 ? `${mold.name}, ` : '';
  return { kind: 'smoke', moldId: mold.moldId, says: `Candle due: ${where}${which}.`, weight: 'watch' };
}

function routine(input: CoachInput): Advice[] {
  const { state, now } = input;
  if (state.phase !== 'pouring') return [];
  const entries = standing<PourEntry>(input.log);
  const advice: Advice[] = [];
  const lastDone = (what: string) => entries.findLast((entry) => entry.kind === 'done' && entry.what === what)?.at;
  const firstShot = state.shots[0]?.at ?? now;
  if ((now - Math.max(lastDone('skimmed') ?? 0, firstShot)) / 1000 > SKIM_EVERY_S) {
    advice.push({ kind: 'skim', moldId: null, says: 'Skim the old skin off.', weight: 'watch' });
  }
  // A ladle and a lip have no stream that clogs.
  if (!potWay(input.potWay).injects) return advice;
  const since = lastDone('stream looked at') ?? 0;
  if (state.shots.filter((shot) => shot.at > since).length >= STREAM_EVERY_SHOTS) {
    advice.push({
      kind: 'stream',
      moldId: null,
      says: 'Look at the stream: thin means shorts, clear the spout with a wire.',
      weight: 'watch',
    });
  }
  return advice;
}

const WEIGHTS = ['stop', 'watch', 'quiet'];

/**
 * What to do before or with the next shot, the most pressing first; "keep going" where there is nothing. Judged from
 * the log, the heat of molds and pot, and each mold's own ways: pure, so it can be asked of any moment.
 * @example coach({ setup: pour.setup, log: [], state: pourState(pour.setup, []), molds: [], potC: 371, potKg: 2,
 *   pot: { powerW: 700, lossWPerK: 0.55 }, capacityKg: 9, metalC: 371, roomC: 20, heelKg: 0.8, now: 0 }) // []
 */
export function coach(input: CoachInput): Advice[] {
  const all = [
    ...input.molds.map((mold) => moldAdvice(input, mold)),
    flashAdvice(input),
    ...input.molds.flatMap((mold) => shortsAdvice(input, mold)),
    ...weightAdvice(input),
    ...potAdvice(input),
    ...input.molds.map((mold) => candle(input, mold)),
    ...routine(input),
  ].filter((each): each is Advice => each !== null);
  const sorted = all.sort((a, b) => WEIGHTS.indexOf(a.weight) - WEIGHTS.indexOf(b.weight));
  const running = input.state.phase === 'pouring' && !sorted.some((each) => each.weight === 'stop');
  if (running && !sorted.some((each) => each.kind === 'wait'))
    sorted.push({ kind: 'go', moldId: null, says: 'Keep going at this pace.', weight: 'quiet' });
  return sorted;
}

import { cavitySolid } from '../geometry/solid.ts';
import { hookShape, typicalHook, type HookSize } from '../geometry/hook.ts';
import type { RouteStep } from '../job/route.ts';
import type { PinCut } from '../mold/variants.ts';
import { collarOf, windingM } from './amounts.ts';
import { finishSchool } from '../ways/finish.ts';
import { quantityText } from '../quantity/said.ts';

/** A part on a product with its own figures, as far as checks ask for them. */
export interface PartOn {
  name: string;
  kind: string;
  /** Key of the step that uses it. */
  step: string;
  quantity: number;
  details?: Readonly<Record<string, number>> | null;
}

export interface FinishedHead {
  style: string;
  nominalMassKg: number;
  hookSize: HookSize | null;
  eyeAngleDeg?: number;
  /** The pin that its cavity has, and whether its variant leaves the hole open; null: no hole is cast. */
  pin: PinCut | null;
  pinWay?: 'as cut' | 'cut short' | 'left out';
  route: readonly RouteStep[];
  parts: readonly PartOn[];
  painted: boolean;
}

/** What a look at the figures finds before the first head is finished. */
interface FinishFinding {
  /** `stop`: it cannot be done so; `watch`: it can, and somebody will be sorry. */
  weight: 'stop' | 'watch';
  says: string;
}

/** A guard sits by glue alone where it has less than this in the hole, m. Common practice, no source. */
const LEAST_DEPTH_M = 0.005;
/** Less play than this and it is snug, m. */
const SNUG_M = 0.0002;
const LOOSE_M = 0.0006;
/** Wire is held and twisted by so much, m. Common practice, no source: 125 to 150 mm a head in all. */
export const WIRE_ENDS_M = 0.09;
/** A split ring's wire is about a tenth of its diameter, and paint in an eye takes so much of it, m. */
const RING_WIRE = 0.1;
const FILM_M = 1.5e-4;

const mm = (metres: number) => quantityText((1000 * metres).toFixed(1), 'mm');
const stop = (says: string): FinishFinding => ({ weight: 'stop', says });
const watch = (says: string): FinishFinding => ({ weight: 'watch', says });
const withKind = ({ parts }: FinishedHead, kind: string) => parts.filter((part) => part.kind === kind);

function guards(head: FinishedHead): FinishFinding[] {
  return withKind(head, 'guard').flatMap(({ name, details }): FinishFinding[] => {
    const { pin, pinWay = 'as cut' } = head;
    if (!pin) return [stop(`${name}: this cavity casts no hole. It has to be drilled.`)];
    if (pinWay !== 'as cut') {
      const why = pinWay === 'cut short' ? 'its pin is cut short' : 'its pin is left out';
      return [stop(`${name}: no hole is cast, because ${why}. Choose it as cut, or drill.`)];
    }
    const found: FinishFinding[] = [];
    if (pin.lengthM < LEAST_DEPTH_M) {
      found.push(watch(`The hole is only ${mm(pin.lengthM)} deep: glue alone holds ${name}.`));
    }
    const guardM = details?.['diameterM'];
    if (guardM === undefined) return found;
    const playM = pin.diameterM - guardM;
    if (playM < -SNUG_M / 2) {
      found.push(stop(`${name} is ${mm(guardM)} thick and its hole ${mm(pin.diameterM)}: it does not go in.`));
    }
    if (playM > LOOSE_M) {
      found.push(watch(`${name} is ${mm(guardM)} thick in a hole of ${mm(pin.diameterM)}: it leans while glue sets.`));
    }
    return found;
  });
}

function eyes(head: FinishedHead): FinishFinding[] {
  const { style, scaleM } = cavitySolid(head.style, head.nominalMassKg);
  const socketM = 2 * style.eyeSpot[2] * scaleM;
  return withKind(head, 'eye').flatMap(({ name, details }) => {
    const eyeM = details?.['diameterM'];
    if (eyeM === undefined || eyeM <= 1.1 * socketM) return [];
    return [watch(`${name} is ${mm(eyeM)} wide and its place on this head ${mm(socketM)}: its edge stands off.`)];
  });
}

function wires(head: FinishedHead): FinishFinding[] {
  const { barbM } = collarOf(cavitySolid(head.style, head.nominalMassKg));
  const skirted = head.route.some(({ task, school }) => task === 'skirt' && school === 'wire');
  if (!skirted) return [];
  return withKind(head, 'wire').flatMap(({ name, quantity, details }) => {
    const strandM = details?.['diameterM'] ?? 0.0005;
    const two = windingM({ turns: 2, coreM: barbM, strandM, endsM: WIRE_ENDS_M });
    const short = `${name}: ${mm(quantity)} a head is less than two turns (${mm(two)} with its ends).`;
    return quantity < 0.98 * two ? [watch(`${short} One turn cuts the strands.`)] : [];
  });
}

function blades(head: FinishedHead): FinishFinding[] {
  const [form] = withKind(head, 'wire form');
  const freeM = form?.details?.['lengthM'];
  if (freeM === undefined || withKind(head, 'treble').length === 0) return [];
  return withKind(head, 'blade').flatMap(({ name, details }) => {
    const bladeM = details?.['lengthM'];
    if (bladeM === undefined || bladeM <= freeM) return [];
    return [stop(`${name} is ${mm(bladeM)} long and has ${mm(freeM)} of wire: it strikes the treble.`)];
  });
}

/** What goes through the eye of the hook after paint: it must be open, and wide enough. */
function throughTheEye(head: FinishedHead): FinishFinding[] {
  if (!head.hookSize) return [];
  const hook = typicalHook(head.hookSize);
  const { eye } = hookShape(hook, head.eyeAngleDeg ?? 60);
  const openM = 2 * eye.radiusM - hook.wireM;
  const at = (step: string) => head.route.findIndex(({ key }) => key === step);
  const paint = head.painted ? head.route.findIndex(({ station }) => station === 'paint') : -1;
  return withKind(head, 'ring').flatMap(({ name, step, details }) => {
    const ringM = details?.['diameterM'];
    if (ringM === undefined) return [];
    const after = paint >= 0 && at(step) > paint;
    const roomM = openM - (after ? 2 * FILM_M : 0);
    if (2 * RING_WIRE * ringM <= roomM) return [];
    const film = after ? ' less its paint' : '';
    return [watch(`${name} has wire of about ${mm(RING_WIRE * ringM)}, twice; the eye is ${mm(openM)} wide${film}.`)];
  });
}

/** Steps in an order that does harm, and waits that are shorter than what has to set. */
function order(head: FinishedHead): FinishFinding[] {
  const { route } = head;
  const placeOf = (task: string) => route.findIndex((step) => step.task === task);
  const found: FinishFinding[] = [];
  const lacquer = placeOf('lacquer');
  for (const soft of ['skirt', 'tie']) {
    const at = placeOf(soft);
    if (lacquer > at && at >= 0)
      found.push(watch(`Lacquer after the ${soft === 'tie' ? 'hair' : 'skirt'} soaks into it.`));
  }
  if (placeOf('eyes') > lacquer && lacquer >= 0) found.push(watch('Eyes that come after the lacquer are not sealed.'));
  for (const { task, school, wait, does } of route) {
    if (!task) continue;
    const sets = finishSchool(task, school).wait;
    if (!sets || (wait?.seconds ?? 0) >= sets.seconds) continue;
    const hours = (seconds: number) =>
      seconds < 5400 ? `${Math.round(seconds / 60)} min` : `${(seconds / 3600).toFixed(0)} h`;
    found.push(
      watch(`${does}: it sets in ${hours(sets.seconds)}, and the next step waits ${hours(wait?.seconds ?? 0)}.`),
    );
  }
  return found;
}

/**
 * What the figures of a product say of its finishing, before a head is spoiled: guard against the hole that the pin
 * leaves, eye against its socket, turns of wire, blade against treble, ring through the painted eye, waits and order.
 * @example finishFindings({ style: 'ball', nominalMassKg: 0.014, hookSize: null, pin: null, route: [], painted: false,
 *   parts: [{ name: 'Brush', kind: 'guard', step: 'guard', quantity: 1 }] })[0].weight // 'stop'
 */
export const finishFindings = (head: FinishedHead): FinishFinding[] => [
  ...guards(head),
  ...eyes(head),
  ...wires(head),
  ...blades(head),
  ...throughTheEye(head),
  ...order(head),
];

/** A delivery that went into the stock of a metal. */
interface LotIn {
  id: string;
  at: number;
  kg: number;
}
/** Anything else that moved the stock: less for what went out, more for what came back. */
interface FlowOut {
  at: number;
  kg: number;
  reason: string;
}
export interface LotTrace {
  id: string;
  leftKg: number;
  /** Where it went, kg by reason. */
  went: { reason: string; kg: number }[];
}

/**
 * Which lot is left and where each went: what is used comes from the oldest lot that has any, what comes back fills the
 * lot that was used last. Lots are not kept apart in a pot, so this is bookkeeping (first in, first out), not assay.
 * Mass is conserved: in - went = left, and what no lot can have given is returned as `unlotted`.
 * @example traceLots([{ id: 'a', at: 1, kg: 5 }], [{ at: 2, kg: -2, reason: 'poured' }]).lots[0].leftKg // 3
 */
export function traceLots(lots: readonly LotIn[], flows: readonly FlowOut[]): { lots: LotTrace[]; unlottedKg: number } {
  const stack = [...lots]
    .sort((a, b) => a.at - b.at)
    .map((lot) => ({ ...lot, leftKg: 0, went: new Map<string, number>() }));
  // Lots come in the order of the stack: those before `arrived` are here, those before `first` are used up.
  let [arrived, first] = [0, 0];
  const come = (lot: (typeof stack)[number]) => {
    lot.leftKg = lot.kg;
    arrived += 1;
  };
  const happenings = [
    ...stack.map((lot) => ({ at: lot.at, order: 0, run: () => come(lot) })),
    ...flows.map((flow) => ({ at: flow.at, order: 1, run: () => take(flow) })),
  ].sort((a, b) => a.at - b.at || a.order - b.order);
  let unlottedKg = 0;
  const move = (lot: (typeof stack)[number], kg: number, reason: string) => {
    lot.leftKg -= kg;
    lot.went.set(reason, (lot.went.get(reason) ?? 0) + kg);
  };
  const take = ({ kg, reason }: FlowOut) => {
    let rest = kg;
    for (let i = first; rest < 0 && i < arrived; i++) {
      const lot = stack[i]!;
      const part = Math.min(lot.leftKg, -rest);
      if (part > 0) move(lot, part, reason);
      rest += Math.max(0, part);
      if (lot.leftKg <= 0 && i === first) first += 1;
    }
    for (let i = arrived - 1; rest > 0 && i >= 0; i--) {
      const lot = stack[i]!;
      const part = Math.min(lot.kg - lot.leftKg, rest);
      if (part <= 0) continue;
      move(lot, -part, reason);
      rest -= part;
      first = Math.min(first, i);
    }
    unlottedKg += rest;
  };
  for (const { run } of happenings) run();
  return {
    lots: stack.map(({ id, leftKg, went }) => ({
      id,
      leftKg,
      went: [...went].map(([reason, kg]) => ({ reason, kg })).filter(({ kg }) => Math.abs(kg) > 1e-9),
    })),
    unlottedKg,
  };
}

/** A lot with what is left of it, in the unit of its part. */
export interface LotLeft {
  id: number;
  of: number;
  left: number;
}

/** Less than this of a part is none. */
const NOTHING = 1e-9;

/**
 * Which lots a use comes from: the oldest that has any, in the order given. A negative quantity goes back, to the lot
 * that was used last and has room. What no lot can give is in none of them.
 * @param quantity that is used, in the unit of the part; negative for what comes back
 * @example allotLots([{ id: 1, of: 10, left: 2 }, { id: 2, of: 5, left: 5 }], 3) // [{ id: 1, quantity: 2 }, { id: 2,
 * quantity: 1 }]
 */
export function allotLots(lots: readonly LotLeft[], quantity: number): { id: number; quantity: number }[] {
  const parts: { id: number; quantity: number }[] = [];
  let rest = quantity;
  for (const lot of quantity > 0 ? lots : [...lots].reverse()) {
    const part = quantity > 0 ? Math.min(lot.left, rest) : -Math.min(lot.of - lot.left, -rest);
    if (Math.abs(part) < NOTHING || Math.sign(part) !== Math.sign(quantity)) continue;
    parts.push({ id: lot.id, quantity: part });
    rest -= part;
    if (Math.abs(rest) < NOTHING) break;
  }
  return parts;
}

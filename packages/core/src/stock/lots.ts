/** A delivery that went into the stock of a metal. */
export interface LotIn {
  id: string;
  at: number;
  kg: number;
}
/** Anything else that moved the stock: less for what went out, more for what came back. */
export interface FlowOut {
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
 */
export function traceLots(lots: readonly LotIn[], flows: readonly FlowOut[]): { lots: LotTrace[]; unlottedKg: number } {
  const stack = [...lots]
    .sort((a, b) => a.at - b.at)
    .map((lot) => ({ ...lot, leftKg: 0, went: new Map<string, number>() }));
  const happenings = [
    ...stack.map((lot) => ({ at: lot.at, order: 0, run: () => void (lot.leftKg = lot.kg) })),
    ...flows.map((flow) => ({ at: flow.at, order: 1, run: () => take(flow) })),
  ].sort((a, b) => a.at - b.at || a.order - b.order);
  let unlottedKg = 0;
  const move = (lot: (typeof stack)[number], kg: number, reason: string) => {
    lot.leftKg -= kg;
    lot.went.set(reason, (lot.went.get(reason) ?? 0) + kg);
  };
  const take = ({ kg, reason, at }: FlowOut) => {
    let rest = kg;
    const there = stack.filter((lot) => lot.at <= at);
    if (rest < 0) {
      for (const lot of there) {
        const part = Math.min(lot.leftKg, -rest);
        if (part <= 0) continue;
        move(lot, part, reason);
        rest += part;
      }
    } else {
      for (const lot of [...there].reverse()) {
        const part = Math.min(lot.kg - lot.leftKg, rest);
        if (part <= 0) continue;
        move(lot, -part, reason);
        rest -= part;
      }
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

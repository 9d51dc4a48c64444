/** Heads that went through somebody's hands, and those of them that were not good. */
export interface Hands {
  heads: number;
  bad: number;
}
/** By the name of who it was; what nobody's name is on is left out. */
export type HandsByWho = Record<string, Hands>;

/**
 * Adds heads to somebody's hands; without a name nothing is added.
 * @example const all = {}; addHands(all, 'Jo', 3, 1); all.Jo // { heads: 3, bad: 1 }
 */
export function addHands(all: HandsByWho, who: string | undefined, heads: number, bad: number): void {
  if (who === undefined) return;
  const own = all[who] ?? { heads: 0, bad: 0 };
  all[who] = { heads: own.heads + heads, bad: own.bad + bad };
}

/**
 * Who poured what: every shot's casts, and those that are not good heads.
 * @example handsOfPour([{ who: 'Jo', heads: [{ verdict: 'good' }, { verdict: 'short' }] }]).Jo.bad // 1
 */
export function handsOfPour(shots: readonly { who?: string; heads: readonly { verdict: string }[] }[]): HandsByWho {
  const all: HandsByWho = {};
  for (const { who, heads } of shots) {
    addHands(all, who, heads.length, heads.filter(({ verdict }) => verdict !== 'good').length);
  }
  return all;
}

/** Nearly all of it is somebody's work: it says something of them. Common practice, no source. */
const MAINLY = 0.9;

/**
 * Whose work something mainly was; null where several shared it, or nobody's name is on most of it.
 * @param heads of all hands, named or not
 * @example mainHand({ Jo: { heads: 95, bad: 2 }, Al: { heads: 5, bad: 0 } }, 100) // 'Jo'
 */
export function mainHand(hands: HandsByWho, heads: number): string | null {
  return Object.entries(hands).find(([, own]) => own.heads >= MAINLY * heads)?.[0] ?? null;
}

import { seeded } from '../random/seeded.ts';
import { programText, type SolveLp, type Term } from '../numeric/program.ts';
import { solver } from '../test/solve.ts';
import { cavity, product, workshop } from '../test/workshop.ts';
import { castsTonight, READY_S } from './casts.ts';
import { blanksOf, openOf } from './mold-plan.ts';
import type { PlanCavity, PlanMold } from './types.ts';

// Which cavity casts what, against an integer program of this test's own with a column for every cavity: whole casts,
// the yields as they are.

let solve: SolveLp;
beforeAll(async () => {
  solve = await solver();
});

/** Leaning on 40 casts at 94 %; a cavity that nobody has cast in is no better than the others of its head together. */
const mean = (good: number, casts: number) => (good + 37.6) / (casts + 40);
function yieldOf(own: PlanCavity, all: readonly PlanCavity[]): number {
  const alone = mean(own.good, own.casts);
  if (own.casts >= 20) return alone;
  const tried = all.filter(({ casts }) => casts >= 20);
  const sum = (of: (each: PlanCavity) => number) => tried.reduce((total, each) => total + of(each), 0);
  return Math.min(
    alone,
    tried.length > 0
      ? mean(
          sum(({ good }) => good),
          sum(({ casts }) => casts),
        )
      : 1,
  );
}

interface Case {
  molds: PlanMold[];
  wanted: { grams: number; heads: number }[];
  hooksHere: Record<string, number>;
}

function caseOf(random: () => number): Case {
  const whole = (low: number, high: number) => low + Math.floor(random() * (high - low + 1));
  const grams = [7, 10, 14];
  const molds = Array.from({ length: whole(1, 3) }, (_, at): PlanMold => ({
    ...{
      id: `m${at}`,
      name: `M${at}`,
      bodyKg: 0.3 + 0.7 * random(),
      shotsSinceSmoked: whole(0, 40),
      eveningSpread: 0.02,
    },
    cavities: Array.from({ length: whole(1, 5) }, (_each, nth) => {
      const casts = whole(0, 1) * whole(20, 300);
      const good = Math.round(casts * (0.55 + 0.44 * random()));
      return {
        ...cavity(nth + 1, grams[whole(0, 2)]!, { good, casts }),
        id: `m${at} ${nth}`,
        hookSize: '2/0' as const,
      };
    }),
  }));
  const cast = grams.filter((each) =>
    molds.some(({ cavities }) => cavities.some((own) => own.nominalMassKg === each / 1000)),
  );
  const wanted = cast.slice(0, whole(1, 3)).map((each) => ({ grams: each, heads: whole(3, 70) }));
  return { molds, wanted, hooksHere: random() < 0.4 ? { hook: whole(0, 60) } : {} };
}
const headOf = (grams: number) =>
  product(grams, { hook: { materialId: 'hook', name: 'Hook', size: '2/0', eyeAngleDeg: 60, massKg: 0.0006 } });

test('60 small workshops: no more time at the pot than a program with a column for every cavity, and no more is missing', () => {
  const { ways, pot } = workshop();
  const random = seeded(Number(process.env['SCHMELZ_SEED'] ?? 20261202));
  const worse: number[] = [];
  for (let round = 0; round < 60; round++) {
    const { molds, wanted, hooksHere } = caseOf(random);
    const asked = wanted.map(({ grams, heads }) => ({ workId: String(grams), product: headOf(grams), heads }));
    const found = castsTonight({ wanted: asked, molds, pot, ways, atOnce: 1, hooksHere }, solve);

    const cavitiesOf = (grams: number) =>
      molds.flatMap((mold) =>
        mold.cavities.filter((own) => own.nominalMassKg === grams / 1000).map((own) => ({ mold, own })),
      );
    const blanks = wanted.map(({ grams }) => {
      const all = cavitiesOf(grams);
      const yields = all.map(({ own }) =>
        yieldOf(
          own,
          all.map((each) => each.own),
        ),
      );
      const average = yields.reduce((sum, each) => sum + each, 0) / yields.length;
      const { casts, id } = found.blanks.find(({ works }) => works.includes(String(grams)))!;
      return { grams, id, wanted: Math.round(casts.expected), average, all, yields };
    });
    const used = molds.filter(({ cavities }) =>
      cavities.some((own) => wanted.some(({ grams }) => own.nominalMassKg === grams / 1000)),
    );
    const opens = new Map(
      used.map((mold) => {
        const own = mold.cavities.filter(({ nominalMassKg }) =>
          wanted.some(({ grams }) => nominalMassKg === grams / 1000),
        );
        const kinds = own.map((each) => ({
          kind: { key: '', lines: [{ product: headOf(1000 * each.nominalMassKg), quantity: 1 }], wanted: 1 },
          ...{ cavities: [each], yieldShare: 1, yieldSure: Infinity, casts: { expected: 1, provision: 1, least: 1 } },
        }));
        return [mold.id, openOf({ mold, kinds }, ways, pot)];
      }),
    );
    const castS = ways.loadS + ways.inspectS + 3;
    const columns = blanks.flatMap(({ all, yields, average, grams }, b) =>
      all.map(({ mold, own }, c) => ({ name: `x${b}_${c}`, grams, b, mold, own, weight: yields[c]! / average })),
    );
    const least: Term[] = [
      ...used.flatMap((mold, m): Term[] => [
        [READY_S + 25 * blanksOf(mold, ways, pot), `z${m}`],
        [5 + opens.get(mold.id)!, `n${m}`],
      ]),
      ...columns.map(({ name }): Term => [castS, name]),
      ...blanks.map((_, b): Term => [5000, `s${b}`]),
    ];
    const rows = [
      ...blanks.map(({ wanted: casts }, b) => ({
        of: [
          ...columns.filter((each) => each.b === b).map(({ name, weight }): Term => [weight, name]),
          [1, `s${b}`] as Term,
        ],
        ...{ is: '>=' as const, to: casts },
      })),
      ...columns.map(({ name, mold }): { of: Term[]; is: '<='; to: number } => ({
        ...{
          of: [
            [1, name],
            [-1, `n${used.indexOf(mold)}`],
          ],
          is: '<=',
          to: 0,
        },
      })),
      ...used.map((_, m): { of: Term[]; is: '<='; to: number } => ({
        of: [
          [1, `n${m}`],
          [-1000, `z${m}`],
        ],
        is: '<=',
        to: 0,
      })),
      ...(hooksHere['hook'] === undefined
        ? []
        : [
            {
              of: columns.map(({ name, weight, b }): Term => [blanks[b]!.average * weight, name]),
              ...{ is: '<=' as const, to: hooksHere['hook'] },
            },
          ]),
    ];
    const whole = [...used.map((_, m) => `n${m}`), ...columns.map(({ name }) => name)];
    const best = solve(programText({ least, rows, whole, yesOrNo: used.map((_, m) => `z${m}`) }));
    const lacks = blanks.map((_, b) => best.columns[`s${b}`] ?? 0);
    const bestS = best.objective - 5000 * lacks.reduce((sum, each) => sum + each, 0);
    const missing = found.blanks.reduce((sum, each) => sum + each.missing, 0);
    const said = { round, missing, lacks: lacks.map((each) => each.toFixed(2)).join(' ') };
    // What is missing is said in whole casts.
    expect({ ...said, ok: missing <= lacks.reduce((sum, each) => sum + Math.ceil(each - 1e-6), 0) }).toEqual({
      ...said,
      ok: true,
    });
    worse.push(found.seconds / Math.max(1, bestS) - 1);
    // No plan is proved to be better than the best there is.
    if (missing === 0) expect(found.boundS).toBeLessThanOrEqual(bestS + 1e-3);
  }
  console.info(
    `worse than the best, of 60: ${worse.filter((each) => each > 1e-6).length}, at most ${(100 * Math.max(...worse)).toFixed(2)} %`,
  );
  expect(Math.max(...worse)).toBeLessThan(1e-4);
}, 300_000);

import { programText, type ProgramRow, type SolveLp, type Term } from '../numeric/program.ts';
import { inRange } from '../quantity/check.ts';

/** Cavities of a mold that are alike: they cast the same blanks, and as well. */
export interface CastGroup {
  id: string;
  moldId: string;
  /** How many there are. */
  cavities: number;
  /** Blanks that they cast, and what a cast counts there against the mean of all cavities for it. */
  casts: { blankId: string; weight: number; keepsEmpty?: readonly string[] }[];
}
interface CastMold {
  id: string;
  /** Once: to get it ready and warm. */
  setupS: number;
  /** A shot, without its cavities; and each cavity that is filled in it. */
  shotS: number;
  castS: number;
}
/** Something that there is only so much of: hooks, pins, metal. */
export interface CastLimit {
  id: string;
  name: string;
  /** What a cast of a blank takes of it that counts one: what comes out good uses it up, the rest gives it back. */
  takes: Record<string, number>;
  most: number;
}
/** Which blanks are cast how often, on which cavities of which molds, in the least time. */
export interface CastProblem {
  blanks: { id: string; name: string; casts: number }[];
  molds: CastMold[];
  groups: CastGroup[];
  limits: CastLimit[];
}

interface CastUse {
  groupId: string;
  moldId: string;
  blankId: string;
  casts: number;
}
export interface CastAnswer {
  shots: Record<string, number>;
  uses: CastUse[];
  /** Casts that cannot be had, by blank; none where all can. */
  missing: Record<string, number>;
  seconds: number;
}
/** An answer with what is proved of it. */
interface SolvedCasts extends CastAnswer {
  /** No plan takes less. */
  boundS: number;
  optimal: boolean;
}

/** A missing cast weighs more than any mold that is warmed for it alone: nothing is left out to save time. */
const MISSING_S = 5000;
const EPS = 1e-6;
/** Part of the seconds that may be open beside what is missing before they are looked at by themselves. */
const HIDDEN = 0.004;

/** Names of the program's columns by place: letters that every reader of the format takes. */
const names = ({ blanks, molds, groups }: CastProblem) => ({
  shots: (moldId: string) => `n${molds.findIndex(({ id }) => id === moldId)}`,
  used: (moldId: string) => `z${molds.findIndex(({ id }) => id === moldId)}`,
  missing: (blankId: string) => `s${blanks.findIndex(({ id }) => id === blankId)}`,
  casts: (groupId: string, blankId: string) =>
    `x${groups.findIndex(({ id }) => id === groupId)}_${blanks.findIndex(({ id }) => id === blankId)}`,
});

/** Casts of a blank in a group, over all pairs that go together. */
const pairs = ({ groups }: CastProblem) => groups.flatMap((group) => group.casts.map((cast) => ({ group, cast })));

/**
 * The integer program as text in the LP format: x casts of a blank in a group of cavities, n shots of a mold, z whether
 * it is used at all. Least time; no cavity is filled more often than its mold is shot; what is scarce is not exceeded.
 * Shots and casts are whole. An integer program of our own; no source.
 * @example castProgram(twelve).split('\n')[1].trim() // 'obj: + 540 z0 + 22 n0 + 5 x0_0 + 5000 s0'
 */
function castProgram(problem: CastProblem): string {
  const { blanks, molds, groups, limits } = problem;
  const of = names(problem);
  const all = pairs(problem);
  const moldOf = (id: string) => molds.find((mold) => mold.id === id)!;
  const wanted = blanks.reduce((sum, { casts }) => sum + casts, 0);
  const poorest = Math.max(EPS, Math.min(1, ...all.map(({ cast }) => cast.weight)));
  const mostShots = Math.ceil(wanted / poorest) + 1;
  const least: Term[] = [
    ...molds.flatMap(({ id, setupS, shotS }): Term[] => [
      [setupS, of.used(id)],
      [shotS, of.shots(id)],
    ]),
    ...all.map(({ group, cast }): Term => [moldOf(group.moldId).castS, of.casts(group.id, cast.blankId)]),
    ...blanks.map(({ id }): Term => [MISSING_S, of.missing(id)]),
  ];
  const rows: ProgramRow[] = [];
  for (const { id, casts } of blanks) {
    const given = all.filter(({ cast }) => cast.blankId === id);
    const sum = given.map(({ group, cast }): Term => [cast.weight, of.casts(group.id, id)]);
    rows.push({ of: [...sum, [1, of.missing(id)]], is: '>=', to: casts });
  }
  for (const group of groups) {
    if (group.casts.length === 0) continue;
    const filled = group.casts.map(({ blankId }): Term => [1, of.casts(group.id, blankId)]);
    rows.push({ of: [...filled, [-group.cavities, of.shots(group.moldId)]], is: '<=', to: 0 });
    for (const { blankId, keepsEmpty = [] } of group.casts) {
      for (const neighbour of groups.filter(({ id }) => keepsEmpty.includes(id))) {
        if (neighbour.casts.length === 0) continue;
        const both = neighbour.casts.map((cast): Term => [1, of.casts(neighbour.id, cast.blankId)]);
        const own: Term = [1, of.casts(group.id, blankId)];
        rows.push({ of: [...both, own, [-1, of.shots(group.moldId)]], is: '<=', to: 0 });
      }
    }
  }
  for (const { id } of molds) {
    const used: Term = [-mostShots, of.used(id)];
    rows.push({ of: [[1, of.shots(id)], used], is: '<=', to: 0 });
  }
  for (const { takes, most } of limits) {
    const taken = all
      .filter(({ cast }) => takes[cast.blankId])
      .map(({ group, cast }): Term => [takes[cast.blankId]! * cast.weight, of.casts(group.id, cast.blankId)]);
    rows.push({ of: taken, is: '<=', to: most });
  }
  return programText({
    ...{ least, rows },
    whole: [...molds.map(({ id }) => of.shots(id)), ...all.map(({ group, cast }) => of.casts(group.id, cast.blankId))],
    yesOrNo: molds.map(({ id }) => of.used(id)),
  });
}

/**
 * Seconds of an answer, reckoned anew from what it says: nothing is believed of a solver.
 * @example castSeconds({ molds: [{ id: 'm', setupS: 60, shotS: 10, castS: 30 }] }, { shots: { m: 2 }, uses: [] }) // 80
 */
export const castSeconds = (
  { molds }: Pick<CastProblem, 'molds'>,
  { shots, uses }: Pick<CastAnswer, 'shots' | 'uses'>,
): number =>
  molds.reduce((sum, { id, setupS, shotS, castS }) => {
    const count = shots[id] ?? 0;
    const casts = uses.reduce((all, use) => all + (use.moldId === id ? use.casts : 0), 0);
    return sum + (count > 0 ? setupS : 0) + count * shotS + casts * castS;
  }, 0);

interface Fractions {
  casts: (groupId: string, blankId: string) => number;
  shots: (moldId: string) => number;
  missing: (blankId: string) => number;
}

/**
 * Casts as whole numbers, also of a solver that was stopped before they were: what is left over a whole one is rounded
 * down, and then cast where a cavity is still free in the shots there are, the best one first; where none is, one shot
 * more is poured.
 */
function madeWhole(problem: CastProblem, said: Fractions): Pick<CastAnswer, 'uses' | 'shots' | 'missing'> {
  const { blanks, molds, groups, limits } = problem;
  const shots = new Map(molds.map(({ id }) => [id, said.shots(id)]));
  const all = pairs(problem).map(({ group, cast }) => ({
    ...{ group, cast, casts: Math.floor(said.casts(group.id, cast.blankId) + EPS) },
  }));
  const inGroup = (id: string) => all.reduce((sum, each) => sum + (each.group.id === id ? each.casts : 0), 0);
  const used = ({ takes }: CastLimit) =>
    all.reduce((sum, each) => sum + (takes[each.cast.blankId] ?? 0) * each.cast.weight * each.casts, 0);
  const fits = ({ group, cast }: (typeof all)[number]) => {
    const most = shots.get(group.moldId)!;
    if (inGroup(group.id) >= group.cavities * most) return false;
    const near = groups.filter(
      ({ id, casts }) =>
        cast.keepsEmpty?.includes(id) ||
        (inGroup(id) > 0 && casts.some(({ keepsEmpty }) => keepsEmpty?.includes(group.id))),
    );
    return near.every(({ id }) => inGroup(id) + inGroup(group.id) < most);
  };
  const allowed = ({ cast }: (typeof all)[number]) =>
    limits.every((limit) => used(limit) + (limit.takes[cast.blankId] ?? 0) * cast.weight <= limit.most + EPS);
  const missing: Record<string, number> = {};
  for (const { id, casts: wanted } of blanks) {
    const own = all.filter(({ cast }) => cast.blankId === id).sort((a, b) => b.cast.weight - a.cast.weight);
    const worth = () => own.reduce((sum, { cast, casts }) => sum + cast.weight * casts, 0);
    const target = wanted - said.missing(id) - EPS;
    while (worth() < target) {
      const open = own.filter(allowed);
      const free = open.find(fits);
      if (free) free.casts += 1;
      else if (open[0]) shots.set(open[0].group.moldId, shots.get(open[0].group.moldId)! + 1);
      else break;
    }
    const left = wanted - worth();
    if (left > EPS) missing[id] = Math.ceil(left - EPS);
  }
  return {
    uses: all.flatMap(({ group, cast, casts }) =>
      casts > 0 ? [{ groupId: group.id, moldId: group.moldId, blankId: cast.blankId, casts }] : [],
    ),
    shots: Object.fromEntries([...shots].filter(([, count]) => count > 0)),
    missing,
  };
}

/**
 * The least time to cast what is wanted.
 * @param solve a solver of integer programs: it runs in a worker, and in tests
 * @throws QuantityError for seconds or counts that are none; RangeError where the solver finds no answer at all
 * @example solveCasts(twelve, solve).shots.mold // 4
 */
export function solveCasts(problem: CastProblem, solve: SolveLp): SolvedCasts {
  for (const { name, casts } of problem.blanks) inRange(`casts of ${name}`, casts, '', 0, 1e6);
  for (const { setupS, shotS, castS } of problem.molds) {
    for (const [what, value] of Object.entries({ setupS, shotS, castS })) inRange(what, value, 's', 0, 1e5);
  }
  if (problem.blanks.every(({ casts }) => casts === 0)) {
    return { shots: {}, uses: [], missing: {}, seconds: 0, boundS: 0, optimal: true };
  }
  const of = names(problem);
  const first = solve(castProgram(problem));
  if (Object.keys(first.columns).length === 0) throw new RangeError(`the casts have no plan: ${first.status}`);
  const lacks = (blankId: string) => Math.max(0, first.columns[of.missing(blankId)] ?? 0);
  // What cannot be had is taken as it is; where its weight hides what the rest takes, that is proved by itself.
  const rest = {
    ...problem,
    blanks: problem.blanks.map((blank) => ({ ...blank, casts: blank.casts - lacks(blank.id) })),
  };
  const lackS = problem.blanks.reduce((sum, { id }) => sum + MISSING_S * lacks(id), 0);
  const hidden = first.objective - first.bound > HIDDEN * Math.max(1, first.objective - lackS);
  const again = lackS > EPS && hidden ? solve(castProgram(rest)) : first;
  const said = Object.keys(again.columns).length > 0 ? again : first;
  const read = (name: string) => Math.max(0, said.columns[name] ?? 0);
  const { uses, shots, missing } = madeWhole(problem, {
    casts: (groupId, blankId) => read(of.casts(groupId, blankId)),
    shots: (moldId) => Math.round(read(of.shots(moldId))),
    missing: lacks,
  });
  const seconds = castSeconds(problem, { shots, uses });
  const unsaid = problem.blanks.reduce((sum, { id }) => sum + MISSING_S * read(of.missing(id)), 0);
  const boundS = Math.min(seconds, Math.max(0, said.bound - unsaid));
  const optimal = seconds - boundS <= 1e-4 * Math.max(1, seconds);
  return { shots, uses, missing, seconds, boundS, optimal };
}

import { SOFT_LEAD } from '../metal/alloy.ts';
import { potWay, type PotWay } from '../pot/way.ts';
import { fillIndex, type FillCavity, type FillSettings } from './fill-index.ts';

/** One thing that can be changed at the bench, and what it would do to this cavity now. */
export interface Lever {
  id: string;
  /** What to do, in the maker's words; hotter by so many kelvin where it is about heat. */
  says: string;
  byK: number | null;
  index: number;
  /** Index after over index before. */
  gain: number;
  caution: string | null;
}

/** As hot as metal and mold are taken on purpose: beyond it dross, fume and frosted heads cost more than it gains. */
const HOT_METAL_C = 400;
const HOT_MOLD_C = 150;
const METAL_STEP_K = 15;
const MOLD_STEP_K = 25;
const TIPPED_DEG = 20;

type Change = { id: string; says: string; byK?: number; change: Partial<FillSettings> | null; caution?: string };

const changes = (now: FillSettings, injects: boolean): Change[] => [
  { id: 'clean', says: 'Skim and flux: clean metal', change: now.dirt > 0.05 ? { dirt: 0 } : null },
  {
    id: 'soft',
    says: 'Change to soft lead',
    change:
      now.alloy.densityKgM3 !== SOFT_LEAD.densityKgM3 && now.alloy.liquidusC > 200
        ? { alloy: SOFT_LEAD, metalC: Math.max(now.metalC, SOFT_LEAD.liquidusC + 20) }
        : null,
  },
  {
    id: 'inject',
    says: 'Press the gate against the spout (inject)',
    change: injects && now.pouring === 'gravity' ? { pouring: 'inject' } : null,
    caution: 'Gloves and face shield: a gate that does not seal squirts.',
  },
  {
    id: 'tilt',
    says: `Tip the mold ${TIPPED_DEG}° so that it runs to the far end`,
    change: now.tiltDeg < TIPPED_DEG ? { tiltDeg: TIPPED_DEG } : null,
  },
  {
    id: 'stream',
    says: now.stream === 'thin' && injects ? 'Clear the spout with a wire: full stream' : 'Pour in one quick shot',
    change: now.stream === 'quick' ? null : { stream: 'quick' },
  },
  { id: 'smoke', says: 'Smoke the cavity', change: now.shotsSinceSmoked > 0 ? { shotsSinceSmoked: 0 } : null },
  { id: 'hook', says: 'Warm the hooks in the closed mold', change: now.hookWarm ? null : { hookWarm: true } },
  {
    id: 'mold',
    says: 'Let the mold get hotter, by a quicker pace or a blank shot',
    byK: MOLD_STEP_K,
    change: now.moldC + MOLD_STEP_K <= HOT_MOLD_C ? { moldC: now.moldC + MOLD_STEP_K } : null,
  },
  {
    id: 'metal',
    says: 'Turn the metal up',
    byK: METAL_STEP_K,
    change: now.metalC + METAL_STEP_K <= HOT_METAL_C ? { metalC: now.metalC + METAL_STEP_K } : null,
    caution: 'Hotter metal makes more dross; above about 470 °C (880 °F) the fume itself is a danger.',
  },
];

/**
 * What to change first for this cavity at these settings: each lever one usual step further, the largest gain first.
 * Levers that are already used up are left out, and pressing against a spout where there is none. None ever lowers the
 * index.
 * @example fillLevers(dart, FILL_DEFAULTS)[0].says // 'Press the gate against the spout (inject)'
 */
export function fillLevers(cavity: FillCavity, now: FillSettings, way?: PotWay | null): Lever[] {
  const before = fillIndex(cavity, now).index;
  return changes(now, potWay(way).injects)
    .flatMap(({ id, says, byK, change, caution }) => {
      if (!change) return [];
      const { index } = fillIndex(cavity, { ...now, ...change });
      return [{ id, says, byK: byK ?? null, index, gain: index / before, caution: caution ?? null }];
    })
    .sort((a, b) => b.gain - a.gain);
}

import { QuantityError } from '../quantity/check.ts';
import type { School } from './school.ts';

/** One way of doing a piece of finishing: as a school of trim or paint, with what has to pass after it. */
interface FinishSchool extends School {
  /** Glue and lacquer set and cure, thread that is coated dries. */
  wait?: { name: string; seconds: number };
  /** How long a mix can be worked, s; left out where nothing is mixed. */
  potLifeS?: number;
  /** What a head takes of glue or lacquer, ml. */
  ml?: number;
}

/** Something that is done to a painted head at the finish, with its schools; the first is the usual one. */
interface FinishTask {
  id: string;
  name: string;
  /** As a step of a route says it. */
  does: string;
  /** Kinds of parts that it uses. */
  uses: readonly string[];
  schools: readonly FinishSchool[];
}

const spoils = (share: number, cause: string) => ({ share, cause });
const MIN = 60;
const HOUR = 3600;
const GLUES = 'Gloves on and air about: glue hardens on skin and its fumes sting. Read its own sheet.';
const FUMES = 'Solvent fumes burn: no flame and no pot near it, air about. Read its own sheet.';
const sets = (seconds: number) => ({ name: 'glue sets', seconds });
const dries = (seconds: number) => ({ name: 'coat dries', seconds });

/** What is done at the finish, and the schools in each. Seconds, losses and waits: common practice, no source. */
export const FINISH_TASKS = [
  {
    id: 'guard',
    name: 'Guard',
    does: 'Guard in',
    uses: ['guard', 'glue'],
    schools: [
      {
        ...{ id: 'epoxy 5', name: 'Five-minute epoxy', suits: 'a few heads at a time; yellows and softens in years' },
        ...{ seconds: 28, spoils: spoils(0.01, 'guard crooked'), needs: ['epoxy', 'a card', 'toothpicks', 'a rag'] },
        ...{ caution: GLUES, check: 'In line with the hook, no residue on the paint' },
        ...{ wait: sets(20 * MIN), potLifeS: 4 * MIN, ml: 0.06 },
      },
      {
        ...{ id: 'epoxy 30', name: 'Thirty-minute epoxy', suits: 'a tray at a time; holds best' },
        ...{ seconds: 24, spoils: spoils(0.006, 'guard crooked'), needs: ['epoxy', 'a card', 'toothpicks', 'a rag'] },
        ...{ caution: GLUES, check: 'In line with the hook, no residue on the paint' },
        ...{ wait: sets(8 * HOUR), potLifeS: 22 * MIN, ml: 0.06 },
      },
      {
        ...{
          id: 'epoxy slow',
          name: 'Two-ton epoxy, overnight',
          suits: 'the whole evening in one mix, ready tomorrow',
        },
        ...{ seconds: 22, spoils: spoils(0.006, 'guard crooked'), needs: ['epoxy', 'a card', 'toothpicks', 'props'] },
        ...{ caution: GLUES, check: 'Propped up in line with the hook' },
        ...{ wait: sets(12 * HOUR), potLifeS: 60 * MIN, ml: 0.06 },
      },
      {
        ...{ id: 'superglue', name: 'Superglue', suits: 'at once; brittle in cold and when it is knocked' },
        ...{ seconds: 14, spoils: spoils(0.015, 'guard crooked'), needs: ['superglue'] },
        ...{ caution: GLUES, check: 'It does not turn' },
        ...{ wait: sets(2 * MIN), ml: 0.02 },
      },
    ],
  },
  {
    id: 'skirt',
    name: 'Skirt',
    does: 'Skirt on',
    uses: ['banded skirt', 'skirt tab', 'wire', 'collar'],
    schools: [
      {
        ...{ id: 'banded', name: 'Ready-banded', suits: 'quick; a band perishes in a season or two' },
        ...{ seconds: 25, spoils: spoils(0.005, 'comes apart'), needs: ['banded skirts'] },
        check: 'Half an inch along, the short side toward the point; strands pulled apart',
      },
      {
        ...{ id: 'wire', name: 'Tabs tied with wire', suits: 'holds for years; takes some thirty to learn' },
        ...{ seconds: 110, spoils: spoils(0.04, 'comes apart'), needs: ['wire', 'tabs', 'a magnet as third hand'] },
        ...{
          caution: 'Wire ends are sharp and fly off the cutter: eyes covered.',
          check: 'Two turns or more; end bent back',
        },
      },
      {
        ...{ id: 'collar', name: 'A rubber collar', suits: 'can be changed at the water' },
        ...{ seconds: 40, spoils: spoils(0.01, 'comes apart'), needs: ['rubber collars', 'the collar tool'] },
        check: 'Collar behind the barb',
      },
    ],
  },
  {
    id: 'tie',
    name: 'Hair or feather',
    does: 'Tie the tail',
    uses: ['thread', 'hair', 'feather', 'tinsel'],
    schools: [
      {
        ...{ id: 'flared', name: 'Flared, finished by half hitches', suits: 'bucktail and nylon hair' },
        ...{ seconds: 240, spoils: spoils(0.03, 'comes apart'), needs: ['vise', 'thread', 'hair', 'a new blade'] },
        ...{ caution: 'A new blade: cut away from the hand.', check: 'Pull on it: nothing slides' },
      },
      {
        ...{ id: 'whip', name: 'Whip finish', suits: 'a small neat head of thread; micro heads' },
        ...{ seconds: 210, spoils: spoils(0.02, 'comes apart'), needs: ['vise', 'thread', 'whip tool'] },
        ...{ caution: 'A new blade: cut away from the hand.', check: 'Pull on it: nothing slides' },
      },
    ],
  },
  {
    id: 'seal',
    name: 'Thread sealed',
    does: 'Seal the thread',
    uses: ['glue', 'lacquer'],
    schools: [
      {
        ...{ id: 'epoxy turned', name: 'Epoxy, on a turning rack', suits: 'a clear even coat' },
        ...{ seconds: 20, spoils: spoils(0.01, 'comes apart'), needs: ['epoxy', 'a brush', 'the turning rack'] },
        ...{ caution: GLUES, check: 'A little into the hair, none on the point' },
        ...{ wait: sets(12 * HOUR), potLifeS: 25 * MIN, ml: 0.05 },
      },
      {
        ...{ id: 'epoxy in hand', name: 'Quick epoxy, turned by hand', suits: 'one or two at a time' },
        ...{ seconds: 150, spoils: spoils(0.01, 'comes apart'), needs: ['epoxy', 'a brush'] },
        ...{ caution: GLUES, check: 'No drip' },
        ...{ wait: sets(20 * MIN), potLifeS: 4 * MIN, ml: 0.05 },
      },
      {
        ...{ id: 'clear paint', name: 'Clear paint', suits: 'soft and flexible; two coats' },
        ...{ seconds: 16, spoils: null, needs: ['clear paint', 'a brush'] },
        ...{ caution: FUMES, check: 'The thread shines all round' },
        ...{ wait: dries(10 * HOUR), ml: 0.04 },
      },
    ],
  },
  {
    id: 'eyes',
    name: 'Eyes',
    does: 'Eyes on',
    uses: ['eye', 'glue'],
    schools: [
      {
        ...{ id: 'stuck', name: 'Stuck on', suits: 'flat sockets, sealed afterwards' },
        ...{ seconds: 14, spoils: spoils(0.004, 'eye lost'), needs: ['eyes', 'a needle or tweezers'] },
        check: 'Both sides, level',
      },
      {
        ...{ id: 'superglue', name: 'With a touch of superglue', suits: 'sure to stay; it dulls where it runs' },
        ...{ seconds: 18, spoils: spoils(0.008, 'eye lost'), needs: ['eyes', 'superglue', 'a needle'] },
        ...{ caution: GLUES, check: 'Both sides, level, not dull' },
        ...{ wait: sets(2 * MIN), ml: 0.01 },
      },
    ],
  },
  {
    id: 'lacquer',
    name: 'Sealed with lacquer',
    does: 'Clear lacquer last',
    uses: ['lacquer'],
    schools: [
      {
        ...{ id: 'dipped', name: 'Dipped', suits: 'a row on a wire' },
        ...{ seconds: 8, spoils: spoils(0.004, 'other'), needs: ['clear lacquer', 'a wire to hang on'] },
        ...{ caution: FUMES, check: 'Eye of the hook open, no drip' },
        ...{ wait: dries(6 * HOUR), ml: 0.12 },
      },
      {
        ...{ id: 'brushed', name: 'Brushed over the eye only', suits: 'seals the edge, nothing else' },
        ...{ seconds: 10, spoils: null, needs: ['clear lacquer', 'a brush'] },
        ...{ caution: FUMES, check: 'Edge of the eye is closed' },
        ...{ wait: dries(4 * HOUR), ml: 0.02 },
      },
    ],
  },
  {
    id: 'rig',
    name: 'Rigged',
    does: 'Rig it',
    uses: ['ring', 'swivel', 'treble', 'blade', 'clevis', 'bead', 'wire form'],
    schools: [
      {
        ...{ id: 'rings', name: 'Ring and hook', suits: 'balls and spoons' },
        ...{ seconds: 22, spoils: spoils(0.004, 'comes apart'), needs: ['ring pliers'] },
        ...{ caution: 'Trebles hook hands: one point at a time, pliers.', check: 'It swings freely' },
      },
      {
        ...{ id: 'spinner', name: 'Beads, clevis, blade, loop', suits: 'tail spinners' },
        ...{
          seconds: 75,
          spoils: spoils(0.02, 'comes apart'),
          needs: ['round-nose pliers', 'beads', 'clevis and blade'],
        },
        ...{
          caution: 'Wire ends are sharp and fly off the cutter: eyes covered.',
          check: 'The blade spins when it is blown at',
        },
      },
    ],
  },
  {
    id: 'tube',
    name: 'Guard wires in tube',
    does: 'Shrink tube on',
    uses: ['shrink tube'],
    schools: [
      {
        ...{ id: 'shrunk', name: 'Shrunk with a flame’s tip', suits: 'two wires as one guard' },
        ...{ seconds: 20, spoils: spoils(0.01, 'other'), needs: ['shrink tube', 'lighter'] },
        ...{ caution: 'Flame away from hair, thread and solvent.', check: 'Wires stand in line with the point' },
      },
    ],
  },
] as const satisfies readonly FinishTask[];

export type FinishTaskId = (typeof FINISH_TASKS)[number]['id'];

/**
 * The row of a task.
 * @throws QuantityError for a task that is not in the table
 * @example finishTask('guard').does // 'Guard in'
 */
export function finishTask(id: string): FinishTask {
  const found = (FINISH_TASKS as readonly FinishTask[]).find((task) => task.id === id);
  if (!found) throw new QuantityError('task', id, '', FINISH_TASKS.map((task) => task.id).join(', '));
  return found;
}

/**
 * The school that a step follows in its task; the usual one where it names none.
 * @throws QuantityError for one that the task does not have
 * @example finishSchool('skirt', 'wire').seconds // 110
 */
export function finishSchool(task: string, school?: string | null): FinishSchool {
  const { schools } = finishTask(task);
  const found = school ? schools.find((each) => each.id === school) : schools[0];
  if (!found) throw new QuantityError(`way of ${task}`, school!, '', schools.map((each) => each.id).join(', '));
  return found;
}

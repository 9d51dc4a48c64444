import type { CareRecord, DialRecord, LotInput, TrialRecord } from '@schmelz/contract';
import { castMassKg, seeded, typicalHook, standing, type PourEntry, type Reading } from '@schmelz/core';
import { addLog } from '../services/readings.ts';
import { addLot, cleanLot } from '../services/lots.ts';
import { listMolds } from '../services/cavities.ts';
import { listPours } from '../services/pours.ts';
import { addRecord } from '../services/records.ts';
import { aluminiumMold, emptyRun, potAtWork, runMold, type WorldPot } from '@schmelz/worlds';
import { BAD_CAVITY, TRUE_OVEN } from './catalogue.ts';
import { TRUE_BAR_KG } from './evening.ts';
import { createResource } from '../services/resources.ts';
import type { Store } from '../store/store.ts';
import type { Things } from './make-things.ts';

const DAY_MS = 24 * 3600 * 1000;
const isoDay = (at: number) => new Date(at).toISOString().slice(0, 10);

/** The pot's dial as it really is: kelvin a mark, and how it creeps hotter over the year. */
const DIAL = { from: 232, perMark: 20, creepKPerMonth: 1.9 };
/** What the pot really is, which its plate does not say: for the fit to find. */
const TRUE_POT: WorldPot = {
  ...{ powerW: 648, lossWPerK: 0.52, crucibleJPerK: 620, wallWPerK: 60, capacityKg: 9 },
  ...{ swingK: 7, probeLagS: 6, noiseK: 0 },
};

/** Lots, dial marks, care, trials, parts and probe readings of the demo workshop. */
export async function makeHeat(store: Store, things: Things, today: number, days: number): Promise<void> {
  const start = today - days * DAY_MS;
  await lots(store, things, start);
  await dialMarks(store, things, start, days);
  await careAndTrials(store, things, today, days);
  await heads(store, things, today);
}

/** The drawer of small tools: counted at last, at the end of the year. */
export async function fillDrawer(store: Store): Promise<void> {
  for (const part of PARTS) await createResource(store, 'parts', part);
}

/** Heads on the scale: a steady product, and one whose bad cavity casts light because it is not quite full. */
async function heads(store: Store, things: Things, today: number): Promise<void> {
  const random = seeded(91);
  const weigh = async (
    productAt: number,
    nominalMassKg: number,
    size: '2/0' | '3/0',
    positions: number[],
    count: number,
  ) => {
    for (let i = 0; i < count; i++) {
      const position = positions[i % positions.length]!;
      const light = nominalMassKg === 0.014 && position === BAD_CAVITY.position ? 0.96 : 1;
      const leadKg = castMassKg({ nominalMassKg }) * light * (1 + 0.012 * (random() - 0.5));
      const massKg = Math.round((leadKg + typicalHook(size).massKg) * 1e5) / 1e5;
      await addRecord(store, {
        kind: 'sample',
        thingId: things.productIds[productAt]!,
        at: today - (count - i) * DAY_MS,
        position,
        massKg,
      });
    }
  };
  await weigh(0, 0.01, '2/0', [1, 2, 3], 15);
  await weigh(5, 0.014, '3/0', [4, 5, 6], 12);
}

const PARTS = [
  {
    name: 'Base-hole pins, 1/8 inch',
    kind: 'base-hole pin',
    diameterM: 0.003175,
    owned: 40,
    places: [
      { where: 'in heads until the bake', count: 26 },
      { where: 'Pebble five', count: 5 },
    ],
  },
  {
    name: 'Pins cut short',
    kind: 'shortened pin',
    diameterM: 0.003175,
    owned: 4,
    places: [{ where: 'Pebble ladder', count: 1 }],
  },
  { name: 'Wire keepers, 0.9 mm', kind: 'wire keeper', diameterM: 0.0009, owned: 120, places: [] },
  { name: 'Pull-out rods, 1.6 mm', kind: 'pull-out rod', diameterM: 0.0016, owned: 3, places: [] },
];

async function lots(store: Store, things: Things, start: number): Promise<void> {
  const material = (name: string, metalId: string, composition: unknown, note: string) =>
    createResource(store, 'materials', { kind: 'lead', name, note, metalId, composition, hook: null, powder: null });
  const hard = await material(
    'Tyre-weight metal',
    'hard-lead',
    { antimonyPercent: 3.2, tinPercent: 0.5, brinell: 10.8 },
    'For heads with a screw keeper only.',
  );
  const green = await material('Bismuth-tin bars', 'bismuth-tin', null, 'For waters where lead is not allowed.');
  const lot = (more: Partial<LotInput>, day: number): LotInput => ({
    materialId: things.leadId,
    label: '',
    source: 'scrap',
    on: isoDay(start + day * DAY_MS),
    grossKg: 1,
    priceMinor: 0,
    brinell: null,
    note: '',
    ...more,
  });
  const clean = async (input: LotInput, cleanKg: number, ingots: number) => {
    const { id } = await addLot(store, input);
    await cleanLot(store, id, 1, { on: input.on, cleanKg, ingots });
  };
  await clean(
    lot(
      { label: 'Keel ends, boat shed', grossKg: 22.4, priceMinor: 2600, brinell: 5, note: 'Bolts and pitch in it.' },
      12,
    ),
    19.1,
    42,
  );
  await clean(lot({ label: 'Roof lead, chapel porch', grossKg: 14.2, priceMinor: 1900, brinell: 4.5 }, 70), 13.1, 28);
  await clean(
    lot(
      {
        label: 'Tyre weights, first bucket',
        materialId: hard['id'] as string,
        source: 'tyre weights',
        grossKg: 11,
        brinell: 10.8,
        note: 'Zinc sorted out first.',
      },
      45,
    ),
    8.2,
    18,
  );
  await addLot(
    store,
    lot(
      {
        label: 'Bismuth-tin, ten bars',
        materialId: green['id'] as string,
        source: 'bought ingots',
        grossKg: 2.5,
        priceMinor: 5900,
      },
      95,
    ),
  );
  await addLot(
    store,
    lot(
      {
        label: 'Tyre weights, second bucket',
        materialId: hard['id'] as string,
        source: 'tyre weights',
        grossKg: 9.6,
        note: 'Not sorted yet.',
      },
      110,
    ),
  );
}

async function dialMarks(store: Store, things: Things, start: number, days: number): Promise<void> {
  const random = seeded(31);
  for (let day = 8; day < days; day += 55) {
    for (const dial of [5, 6, 7, 8, 9]) {
      if (day > 8 && (dial === 5 || dial === 9)) continue;
      const creep = (DIAL.creepKPerMonth * day) / 30.4;
      const temperatureC = Math.round(DIAL.from + DIAL.perMark * dial + creep + 5 * (random() - 0.5));
      const input: DialRecord = {
        kind: 'dial',
        thingId: things.potId,
        at: start + day * DAY_MS,
        dial,
        temperatureC,
        how: 'probe',
      };
      await addRecord(store, input);
    }
  }
  const colour: DialRecord = {
    kind: 'dial',
    thingId: things.potId,
    at: start + 60 * DAY_MS,
    dial: 10,
    temperatureC: 433,
    how: 'colour',
  };
  await addRecord(store, colour);
}

async function careAndTrials(store: Store, things: Things, today: number, days: number): Promise<void> {
  const molds = await listMolds(store);
  const mold = (name: string) => molds.find((each) => each.name === name)!;
  const care = (name: string, daysAgo: number, what: CareRecord['what'], positions: number[] = [], note = '') =>
    addRecord(store, { kind: 'care', thingId: mold(name).id, at: today - daysAgo * DAY_MS, what, positions, note });
  await care('Pebble five', Math.min(days - 2, 330), 'degreased', [], 'alcohol, twice');
  await care('Pebble five', Math.min(days - 2, 330), 'smoked');
  await care('Pebble ladder', 60, 'changed', [5], 'groove ground out for 5/0; cavity 6 stays empty then');
  await care('Fry six', 26, 'smoked', [4], 'the short one');
  await care('Fry six', 40, 'hinge waxed');
  const trial = (name: string, position: number, hookId: string, more: Partial<TrialRecord>) =>
    addRecord(store, {
      kind: 'trial',
      thingId: mold(name).id,
      at: today - 55 * DAY_MS,
      cavityId: mold(name).cavities[position - 1]!.id,
      hookId,
      prepared: 'as it is',
      sound: 'click',
      seamFlush: true,
      note: '',
      ...more,
    });
  const hook = (size: string) => things.hookIds.get(size)!;
  await trial('Pebble five', 4, things.wrongHookId, {
    prepared: 'eye bent',
    note: 'opened to 60°, lies in the middle',
  });
  await trial('Pebble five', 4, hook('4/0'), { sound: 'thud', note: 'held open at the bend' });
  await trial('Pebble ladder', 5, hook('4/0'), { note: 'a little tight' });
  await trial('Rocker three', 1, hook('4/0'), { prepared: 'mold changed', seamFlush: true });
}

const EVERY_S = 5;

/** What probes would have said in the last pours, from how pot and mold really are. */
export async function recordProbes(store: Store, things: Things, howMany = 2): Promise<void> {
  const random = seeded(57);
  const noise = () => 1.6 * (random() + random() + random() - 1.5);
  const pours = (await listPours(store)).filter((pour) => pour.closed).slice(0, howMany);
  for (const pour of pours) {
    const log = standing<PourEntry>(pour.log);
    const charge = log.find((entry) => entry.kind === 'charge');
    if (charge?.kind !== 'charge') continue;
    const from = charge.at;
    const seconds = Math.round((log.at(-1)!.at - from) / 1000);
    const times = Array.from({ length: Math.floor(seconds / EVERY_S) }, (_, i) => i * EVERY_S);
    const own = pour.setup.molds.map(({ moldId }) => ({ moldId, ...things.trueMolds.get(moldId)! }));
    const backs = own.map(({ moldId, bodyKg, quirk, fullShotKg }) => {
      // Unused cavities are filled too, to keep the mold hot.
      const poured = log.flatMap((entry) => {
        if (!(entry.kind === 'shot' || entry.kind === 'blank') || entry.moldId !== moldId) return [];
        return [{ atS: (entry.at - from) / 1000, kg: fullShotKg + (entry.kind === 'blank' ? TRUE_BAR_KG : 0) }];
      });
      const mold = runMold(aluminiumMold(bodyKg, quirk), 20);
      const shutS = pour.setup.molds.find((each) => each.moldId === moldId)!.openS;
      let [next, shutUntil] = [0, 0];
      return times.map((atS) => {
        for (; next < poured.length && poured[next]!.atS <= atS; next++) {
          mold.pour(poured[next]!.kg, pour.knownThen.pourC);
          shutUntil = poured[next]!.atS + shutS;
        }
        mold.pass(EVERY_S, next > 0 && atS > shutUntil);
        return mold.backC();
      });
    });
    const takes = log.flatMap((entry) =>
      entry.kind === 'shot'
        ? [{ atS: (entry.at - from) / 1000, kg: Math.max(...own.map((each) => each.fullShotKg)) }]
        : [],
    );
    const feeds = log.flatMap((entry) =>
      entry.kind === 'feed' ? [{ atS: (entry.at - from) / 1000, kg: entry.massKg }] : [],
    );
    const pot = potAtWork(TRUE_POT, {
      ...{ leadKg: charge.massKg, setC: 374, roomC: 20, everyS: EVERY_S },
      seconds,
      takes,
      feeds,
    });
    const readings = (value: (i: number) => number): Reading[] =>
      times.flatMap((atS, i) => (random() < 0.01 ? [] : [{ at: from + atS * 1000, celsius: value(i) + noise() }]));
    await addLog(store, `pour ${pour.number}`, [
      { place: 'pot', name: 'pot', readings: readings((i) => pot[i] ?? 20) },
      ...own.map(({ name }, at) => ({ place: 'mold' as const, name, readings: readings((i) => backs[at]![i]!) })),
    ]);
  }
}

/** An empty run of the oven with a probe in it, set to 177 C: for its lag, offset and swing to be found. */
export async function recordOven(store: Store, today: number): Promise<void> {
  const from = today - 9 * DAY_MS;
  const readings = emptyRun(TRUE_OVEN, { setC: 177, roomC: 18, seconds: 3000, everyS: 10, seed: 23 });
  const logged = readings.map(({ at, celsius }): Reading => ({ at: from + at, celsius }));
  await addLog(store, 'empty run of the oven', [{ place: 'oven', name: 'oven', readings: logged }]);
}

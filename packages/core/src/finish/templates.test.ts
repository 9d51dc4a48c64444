import { POUR_STEP } from '../job/bill.ts';
import { partKind } from '../job/part-kinds.ts';
import { ticketPostings } from '../job/postings.ts';
import { AT, ticketRefusal, ticketState, type TicketSetup } from '../job/ticket.ts';
import type { TicketEntry } from '../job/ticket-log.ts';
import { planOrder } from '../plan/plan.ts';
import { cavity, workshop } from '../test/workshop.ts';
import { finishSchool } from '../ways/finish.ts';
import { knownBill, knownProduct } from '../workshop/product.ts';
import type { PartRecord, Shelf } from '../workshop/records.ts';
import { PRODUCT_TEMPLATES, type ProductTemplate } from './templates.ts';

const HEADS = 20;
const white: PartRecord = {
  ...{ id: 'white', name: 'White', kind: 'powder' },
  powder: { specificGravity: 1.5, label: [{ metalC: 177, seconds: 1200 }] },
};
/** Each kind of part at one minor unit a piece, a metre or a millilitre, so that its cost is what is taken of it. */
const partsOf = ({ parts }: ProductTemplate): PartRecord[] =>
  parts.map(({ kind, name, limitC }) => ({ id: name, name, kind, limitC: limitC ?? null }));

/** A template as a product that is known, and the mold that casts it. */
function made(template: ProductTemplate) {
  const { id, name, style, nominalMassKg, hookSize, eyeAngleDeg, steps, parts, from } = template;
  const all: PartRecord[] = [white, ...partsOf(template)];
  if (hookSize)
    all.push({ id: 'hook', name: 'Hook', kind: 'hook', hook: { size: hookSize, wire: 'standard', eyeAngleDeg } });
  const shelf: Shelf = {
    part: (wanted) => all.find((each) => each.id === wanted),
    recipe: () => ({ id: 'r', layers: [{ powderId: 'white', zone: 'whole', coats: 1 }] }),
    program: () => ({ id: 'b', name: '177 °C', setC: 177, seconds: 1680, preheated: true }),
  };
  const painted = steps.some(({ station }) => station === 'paint');
  const product = knownProduct(
    {
      ...{ id, name, style, nominalMassKg, hookId: hookSize ? 'hook' : null, route: steps },
      ...{
        recipeId: painted ? 'r' : null,
        bakeProgramId: painted ? 'b' : null,
        fromId: from === 'pour' ? null : 'worn',
      },
      parts: parts.map((part) => ({ partId: part.name, quantity: part.quantity, waste: part.waste, step: part.step })),
    },
    shelf,
  );
  const cavities = [1, 2].map((at) =>
    cavity(at, 1000 * nominalMassKg, { style, ...(hookSize ? { hookSize, eyeAngleDeg } : {}) }),
  );
  const house = workshop();
  const input = {
    ...{ ...house, molds: [{ ...house.molds[0]!, cavities }], lines: [{ product, quantity: HEADS }] },
    ways: { ...house.ways, labourMinorPerHour: 3600 },
    stock: all.map(({ id: materialId, name: own, kind }) => {
      return { materialId, name: own, kind, quantity: 1e6, priceMinor: 1 };
    }),
  };
  return { product, input };
}

// From order to bag, reckoned twice: by the plan, and by what a ticket that is walked to its end asks of the stock.
describe.each(PRODUCT_TEMPLATES.map((template) => [template.name, template] as const))('%s', (_name, template) => {
  const { product, input } = made(template);
  const plan = planOrder(input);
  const [line] = plan.lines;
  const bill = knownBill(product, input.ways);

  test('is planned: nothing stands in its way, its finish takes the seconds of its schools, its parts cost what they are', () => {
    expect(plan.problems).toEqual([]);
    const tasks = template.steps.filter(({ task, handsS }) => task && !handsS);
    // Two seconds to take a head up, and what the school takes: summed by hand over the steps of the finish.
    const seconds = tasks.reduce((sum, { task, school }) => sum + HEADS * (2 + finishSchool(task!, school).seconds), 0);
    const names = new Set(tasks.map(({ does }) => does));
    const rows = plan.minutes.filter(({ does }) => names.has(does));
    expect(rows.reduce((sum, { handsS }) => sum + handsS.value, 0)).toBeCloseTo(seconds, 6);
    const parts = template.parts.reduce((sum, { quantity, waste }) => sum + quantity * (1 + waste), 0);
    expect(line!.stack.parts).toBeCloseTo(parts, 9);
    if (template.from === 'pour') expect(line!.leadKgPerHead.value).toBeCloseTo(template.nominalMassKg, 2);
  });

  test('is made: heads, parts and metal come out even when its ticket is walked to the bag', () => {
    const poured = template.from === 'pour' ? HEADS : 0;
    const setup: TicketSetup = {
      ...{ route: product.steps!, source: template.from === 'pour' ? 'pour' : 'shelf', poured, pourClosed: true },
    };
    let [at, log] = [0, [] as TicketEntry[]];
    const say = (said: object) => {
      const entry = { id: `e${log.length}`, at: (at += 60_000), ...said } as TicketEntry;
      expect([said, ticketRefusal(setup, log, entry)]).toEqual([said, null]);
      log = [...log, entry];
    };
    if (template.from !== 'pour') say({ kind: 'take', count: HEADS });
    for (const [nth, { key, station, wait }] of product.steps!.entries()) {
      if (station === 'bake') {
        say({ kind: 'load', step: key, count: HEADS, setC: 177, seconds: 1680, preheated: true });
        say({ kind: 'unload', step: key });
      }
      say({ kind: 'good', step: key, count: HEADS });
      // What sets is waited for; without the wait the next step is refused.
      const next = product.steps![nth + 1];
      if (wait && next && template.steps[nth]?.task) {
        const early = { id: 'early', at: at + 1000, kind: 'good', step: next.key, count: HEADS } as TicketEntry;
        expect(ticketRefusal(setup, log, early)).toMatch(/not set/);
      }
      at += 1000 * (wait?.seconds ?? 0);
    }
    const state = ticketState(setup, log);
    expect(state.at).toBe(AT.close);
    expect(state.good).toBe(HEADS);
    const cast = {
      ...{ leadMaterialId: 'lead', good: poured, secondGrade: 0, hooksLost: 0, drossKg: 0, unexplainedKg: 0 },
    };
    const postings = ticketPostings({
      ...{ bill, leadKgPerHead: line!.leadKgPerHead.value, cast: poured ? cast : null, source: setup.source },
      ...{ sourceId: poured ? null : 'worn', becomesId: null, state },
    });
    const moved = (id: string) =>
      postings.reduce((sum, { materialId, quantity }) => sum + (materialId === id ? quantity : 0), 0);
    for (const { name, kind, quantity, waste, step } of template.parts) {
      const uses = step === POUR_STEP ? poured : HEADS;
      // Pieces are whole, and one that breaks is counted then; off a spool what is wasted goes with each head.
      const each = partKind(kind).unit === 'pieces' ? quantity : quantity * (1 + waste);
      expect(moved(name)).toBeCloseTo(-uses * each, 9);
    }
    if (poured) expect(moved('lead')).toBeCloseTo(-HEADS * line!.leadKgPerHead.value, 9);
    else expect(moved('worn')).toBe(-HEADS);
    if (poured && template.hookSize) expect(moved('hook')).toBe(-HEADS);
    const kept = postings.filter(({ quantity }) => quantity > 0);
    expect(kept).toEqual([]);
    for (const { kind } of template.parts) expect(partKind(kind).costs).toBe('parts');
  });
});

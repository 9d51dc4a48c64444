import { PRODUCT_TEMPLATES, QuantityError, type ProductTemplate, type TemplatePart } from '@schmelz/core';
import type { Material, Product, TakeTemplateInput } from '@schmelz/contract';
import type { Store } from '../store/store.ts';
import { asRefusal, makeResource } from './resources.ts';
import { listMaterials } from './stock.ts';

/** A part on the shelf that does for one of a template: of its kind, and of its figures where both have any. */
function onShelf({ kind, name, details }: TemplatePart, shelf: readonly Material[]): Material | undefined {
  const own = shelf.filter((each) => each.kind === kind && !each.archived);
  const alike = (each: Material) =>
    Object.entries(details ?? {}).every(([field, value]) => {
      const has = each.details?.[field];
      return has === undefined || Math.abs(has - value) <= 0.1 * value;
    });
  return own.find((each) => each.name === name) ?? own.filter(alike).sort((a, b) => b.quantity - a.quantity)[0];
}

const plain = { note: '', metalId: null, hook: null, powder: null };

/**
 * Makes a product from a template, with the parts that are not on the shelf yet: all of it or nothing. A part of the
 * maker's own takes the place of the template's where it does.
 */
export async function takeTemplate(store: Store, input: TakeTemplateInput): Promise<Product> {
  const template = PRODUCT_TEMPLATES.find((each) => each.id === input.template);
  if (!template)
    throw new QuantityError('template', input.template, '', PRODUCT_TEMPLATES.map(({ id }) => id).join(', '));
  const shelf = await listMaterials(store);
  return asRefusal('product', () =>
    store.write(async (transaction) => {
      const make = async (doc: Record<string, unknown>) =>
        (await makeResource(store, 'materials', { ...plain, ...doc }, transaction)) as object as Material;
      const hookId = input.hookId ?? (await hookFor(template, shelf, make));
      const bill: BillOf[] = [];
      for (const part of template.parts) {
        const { kind, name, details, limitC, quantity, waste, step } = part;
        const own =
          onShelf(part, shelf) ?? (await make({ kind, name, details: details ?? null, limitC: limitC ?? null }));
        bill.push({ partId: own.id, quantity, waste, step });
      }
      const fromId = template.from === 'pour' ? null : await sourceFor(template, shelf, make);
      const { style, nominalMassKg, steps, name } = template;
      const product = {
        ...{ name: input.name ?? name, style, nominalMassKg, hookId, route: steps, parts: bill, fromId },
        ...{ recipeId: input.recipeId ?? null, bakeProgramId: input.bakeProgramId ?? null, priceMinor: null },
      };
      return (await makeResource(store, 'products', product, transaction)) as object as Product;
    }),
  );
}

type BillOf = NonNullable<Product['parts']>[number];
type Make = (doc: Record<string, unknown>) => Promise<Material>;

/** The hook that the head is cast on: one of its size, or a new one on the shelf. */
async function hookFor({ hookSize: size, eyeAngleDeg }: ProductTemplate, shelf: readonly Material[], make: Make) {
  if (size === null) return null;
  const hooks = shelf.filter((each) => each.kind === 'hook' && !each.archived && each.hook?.size === size);
  // One with its eye as the cavity is cut before any other, and of those what there is most of.
  const fits = (each: Material) => Number(each.hook!.eyeAngleDeg === eyeAngleDeg);
  const [own] = hooks.sort((a, b) => fits(b) - fits(a) || b.quantity - a.quantity);
  if (own) return own.id;
  const hook = { size, wire: 'standard', eyeAngleDeg, plating: 'bronze' };
  return (await make({ kind: 'hook', name: `Hook ${size}`, hook })).id;
}

/** Heads off the shelf, where a template starts from such. */
async function sourceFor(template: ProductTemplate, shelf: readonly Material[], make: Make) {
  const own = shelf.find((each) => each.kind === template.from && !each.archived);
  if (own) return own.id;
  const name = template.from === 'used jig' ? 'Worn jigs' : 'Bare heads';
  return (await make({ kind: template.from, name, details: { massKg: template.nominalMassKg } })).id;
}

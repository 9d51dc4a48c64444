import { POUR_STEP, QuantityError, SOURCE_KINDS, type RouteStep } from '@schmelz/core';
import type { ProductInput } from '@schmelz/contract';
import type { Transaction } from 'sequelize';
import { rowsOf, type Store } from '../store/store.ts';

/**
 * What a product says of parts and steps must be there: a bill that names a step of its route, bare heads where heads
 * come
 * from the shelf, a hook where it says hook.
 * @throws QuantityError that names the field
 */
export async function judgeProduct(store: Store, doc: object, transaction: Transaction): Promise<void> {
  const { hookId, fromId, becomesId, parts = [], route } = doc as ProductInput;
  const rows = await rowsOf(store.models.materials, { transaction });
  const kindOf = new Map(rows.map((row) => [row.id, row.kind]));
  const must = (field: string, id: string, kinds: readonly string[]) => {
    const kind = kindOf.get(id);
    if (!kind) throw new QuantityError(field, id, '', 'the id of a part on record');
    if (kinds.length && !kinds.includes(kind))
      throw new QuantityError(field, `a ${kind}`, '', `a ${kinds.join(' or a ')}`);
  };
  if (hookId) must('hookId', hookId, ['hook']);
  if (fromId) must('fromId', fromId, SOURCE_KINDS);
  if (becomesId) must('becomesId', becomesId, ['bare head']);
  parts.forEach((line, index) => {
    must(`parts[${index}].partId`, line.partId, []);
    if (!route) return;
    const steps = [POUR_STEP, ...(route as RouteStep[]).map((step) => step.key)];
    if (!steps.includes(line.step)) throw new QuantityError(`parts[${index}].step`, line.step, '', steps.join(', '));
  });
}

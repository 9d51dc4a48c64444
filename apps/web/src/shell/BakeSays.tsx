import type { Oven } from '@schmelz/contract';
import {
  bakedHead,
  bakeOutcome,
  cureWords,
  knownOven,
  loadHeat,
  writeSpan,
  type BakeOutcome,
  type PlanBake,
  type PlanProduct,
} from '@schmelz/core';
import { Link } from 'react-router';
import { Icon } from '../design/Icon.tsx';
import { useUnits } from '../units/Units.tsx';

/** Heads that a bake is decided for: so many of a product at one of its bakes. */
interface ToBake {
  product: PlanProduct;
  step?: string;
  count: number;
}

/** Says where a bake can still be chosen otherwise what it will not do, or do too much; nothing where all is well. */
export function BakeSays({ name, outcome }: { name: string; outcome: BakeOutcome | null }) {
  const units = useUnits();
  if (!outcome) return null;
  const { cure, part, limitC, damage } = outcome;
  return (
    <>
      {cureWords(cure.value) !== 'full' && (
        <p className="flex gap-2 text-watch">
          <Icon name="watch" className="mt-1 shrink-0" />
          <span>
            {name}: {Math.round(100 * cure.value)} % of a cure by the end of its program, {cureWords(cure.value)}.{' '}
            <Link to="/bake/program" className="underline underline-offset-4">
              A program that does
            </Link>
          </span>
        </p>
      )}
      {damage.flag !== 'none' && limitC !== null && (
        <p className="flex gap-2 text-watch">
          <Icon name="watch" className="mt-1 shrink-0" />
          <span>
            {name}: {part} stands {units.temperature(limitC)} and is over it for {writeSpan(damage.overS)}:{' '}
            {damage.flag === 'browned' ? 'it will have browned' : 'it may colour'}.
          </span>
        </p>
      )}
    </>
  );
}

/** The same of all that hangs in one load, before the door is shut on it. */
export function LoadSays({
  heads,
  program,
  oven,
}: {
  heads: readonly ToBake[];
  program: PlanBake;
  oven: Oven | undefined;
}) {
  const hung = heads.flatMap(({ product, step, count }) => {
    const head = bakedHead(product, step);
    return head ? [{ name: product.name, head, count }] : [];
  });
  const load = loadHeat(hung.map(({ head, count }) => ({ ...head, count })));
  const known = knownOven(oven);
  const kinds = new Map(hung.map((each) => [each.name, each]));
  return [...kinds.values()].map(({ name, head }) => (
    <BakeSays key={name} name={name} outcome={bakeOutcome(head, program, known, load)} />
  ));
}

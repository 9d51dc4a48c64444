import { COST_PARTS, stackTotal, type CostPart, type CostStack } from '@schmelz/core';
import { useUnits } from '../units/Units.tsx';

/** What a part is drawn as: metal colours and hatching, so that no part needs its colour alone. */
const FILLS: Record<CostPart, string> = {
  lead: 'bg-lead',
  hook: 'bg-ink-2',
  powder: 'bg-[#b5552f]',
  parts: 'bg-[#6b7f5b]',
  packaging: 'bg-[#cdbf9f] border border-rule-2',
  dross: 'bg-well border-x border-rule-2',
  energy: 'bg-straw',
  work: 'hatch border border-rule-2',
  wear: 'bg-ink',
};

/** One head's cost as a thin bar of its parts. */
export function CostBar({ stack, of }: { stack: CostStack; of?: number }) {
  const whole = of ?? stackTotal(stack);
  return (
    <span
      className="flex h-3 w-full bg-well"
      role="img"
      aria-label={COST_PARTS.map(
        (part) => `${part} ${Math.round((100 * (stack[part] ?? 0)) / Math.max(1e-9, stackTotal(stack)))} %`,
      ).join(', ')}
    >
      {COST_PARTS.map((part) => (
        <span
          key={part}
          className={FILLS[part]}
          style={{ width: `${(100 * (stack[part] ?? 0)) / Math.max(1e-9, whole)}%` }}
        />
      ))}
    </span>
  );
}

/** Plan and what it came to, side by side as stacks, the larger one filling the height. */
export function CostStacks({ planned, actual }: { planned: CostStack; actual: CostStack | null }) {
  const { money } = useUnits();
  const stacks = [{ name: 'Plan', stack: planned }, ...(actual ? [{ name: 'Came to', stack: actual }] : [])];
  const tallest = Math.max(...stacks.map(({ stack }) => stackTotal(stack)), 1e-9);
  return (
    <div className="flex flex-wrap items-end gap-5">
      {stacks.map(({ name, stack }) => (
        <div key={name} className="w-[74px]">
          <p className="fig text-center text-[23px]">{money(stackTotal(stack), 1)}</p>
          <div className="mt-2 flex flex-col-reverse" style={{ height: (240 * stackTotal(stack)) / tallest }}>
            {COST_PARTS.map((part) => (
              <span
                key={part}
                title={part}
                className={FILLS[part]}
                style={{ height: `${(100 * (stack[part] ?? 0)) / Math.max(1e-9, stackTotal(stack))}%` }}
              />
            ))}
          </div>
          <p className="stamp mt-2 text-center text-sm whitespace-nowrap">{name}</p>
        </div>
      ))}
      <ul className="pb-8 text-sm">
        {[...COST_PARTS].reverse().map((part) => (
          <li key={part} className="flex items-center gap-2 py-0.5">
            <span className={`size-3.5 ${FILLS[part]}`} />
            <span className="w-[72px]">{part}</span>
            <span className="w-16 text-right text-ink-2">{money(planned[part] ?? 0, 1)}</span>
            <b className="w-16 text-right font-semibold">{actual ? money(actual[part] ?? 0, 1) : ''}</b>
          </li>
        ))}
      </ul>
    </div>
  );
}

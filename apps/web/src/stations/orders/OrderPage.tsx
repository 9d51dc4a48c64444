import { castsSay, partKind, pinsFree, pinsSay, sootLeft, forWhom } from '@schmelz/core';
import type { Order } from '@schmelz/contract';
import type { Figure, LinePlan, MaterialNeed, MoldPlan, Plan } from '@schmelz/core';
import { Link, useNavigate, useParams } from 'react-router';
import { call } from '../../api/client.ts';
import { useOrder, usePlan, useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Icon } from '../../design/Icon.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { BakeSays } from '../../shell/BakeSays.tsx';
import { CostBar } from '../../drawing/CostStack.tsx';
import { Head } from '../../drawing/Head.tsx';
import { Mold } from '../../drawing/Mold.tsx';
import { HandOver } from '../goods/HandOver.tsx';
import { ReleasedOrder } from './ReleasedOrder.tsx';
import { drawnCavities } from '../../drawing/cavities.ts';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { RulesTouched } from '../../shell/RulesTouched.tsx';
import { useUnits } from '../../units/Units.tsx';

/** What the costs of the lines lack, and which prices are not those of the shelf. */
function Prices({ lines }: { lines: readonly LinePlan[] }) {
  const lacking = [...new Set(lines.flatMap(({ unpriced }) => unpriced))];
  const marked = [
    ...new Set(lines.flatMap(({ priced }) => priced.map((each) => `${each.name} at its ${each.priced}`))),
  ];
  return (
    <>
      {lacking.length > 0 && (
        <p className="flex gap-2 text-watch">
          <Icon name="watch" className="mt-0.5 shrink-0" />
          <span>
            Costs are without {lacking.join(', ')}: no price is known.{' '}
            <Link to="/stock" className="underline underline-offset-4">
              To the stock
            </Link>
          </span>
        </p>
      )}
      {marked.length > 0 && <p className="quiet">{marked.join('; ')}.</p>}
    </>
  );
}

/** The provision of an expected number: what to lay out for. */
function UpTo({ figure: { value, high = value } }: { figure: Figure }) {
  return high > value ? <span className="quiet block text-sm font-normal">up to {high}</span> : null;
}

function Lines({ lines, catalogue }: { lines: LinePlan[]; catalogue: Catalogue }) {
  return (
    <div className="overflow-x-auto">
      <table className="sheet-table min-w-[560px]">
        <thead>
          <tr>
            <th>Product</th>
            <th className="num">Good heads</th>
            <th className="num">Casts</th>
            <th className="num">Yield</th>
            <th className="num">Cure</th>
            <th className="num">One costs</th>
            <th className="w-[22%]">of that</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => {
            const product = catalogue.product(line.productId);
            return (
              <tr key={line.productId}>
                <td>
                  <span className="flex items-center gap-3">
                    {product && (
                      <Head {...catalogue.spec(product)} paint={catalogue.paint(product)} state="baked" scale={1.35} />
                    )}
                    <span>{line.productName}</span>
                  </span>
                </td>
                <td className="num fig text-[19px]">{line.quantity}</td>
                <td className="num">
                  <Fig figure={line.casts} title="Casts" />
                  <UpTo figure={line.casts} />
                </td>
                <td className="num">
                  <Fig figure={line.yieldShare} title="Yield" />
                </td>
                <td className="num">
                  {line.bake ? <Fig figure={line.bake.cure} title="Cure" /> : <span className="quiet">no bake</span>}
                </td>
                <td className="num font-semibold">
                  <Fig figure={line.unitCost} title="Unit cost" />
                </td>
                <td>
                  <CostBar stack={line.stack} />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

function MoldShots({ mold, catalogue }: { mold: MoldPlan; catalogue: Catalogue }) {
  const units = useUnits();
  const stored = catalogue.molds.find((each) => each.id === mold.moldId);
  const used = new Set(mold.uses.map((use) => use.position));
  return (
    <div className="grid items-center gap-5 border-b border-rule py-3 sm:grid-cols-[minmax(0,1fr)_auto]">
      {stored && (
        <Mold
          className="w-full max-w-[430px]"
          cavities={drawnCavities(stored, units.massUnit, (position) => (used.has(position) ? 'loaded' : 'empty'))}
          sootWear={1 - sootLeft(stored.shotsSinceSmoked)}
          label={`${mold.moldName}, cavities ${[...used].join(', ')} used`}
        />
      )}
      <dl className="grid grid-cols-[auto_auto] gap-x-5 gap-y-2 self-start">
        <dt className="col-span-2 font-medium">{mold.moldName}</dt>
        <dt className="text-ink-2">Blank shots first</dt>
        <dd className="text-right">
          <Fig figure={mold.blanks} title="Blank shots" />
        </dd>
        <dt className="text-ink-2">Shots</dt>
        <dd className="fig text-right text-[25px]">
          <Fig figure={mold.shots} title="Shots" />
          <UpTo figure={mold.shots} />
        </dd>
        <dt className="text-ink-2">Open after</dt>
        <dd className="text-right">
          <Fig figure={mold.openS} title="Time to open" />
        </dd>
      </dl>
    </div>
  );
}

function Needs({ needs }: { needs: MaterialNeed[] }) {
  const units = useUnits();
  const amount = (kind: MaterialNeed['kind'], value: number) => units.part(kind, value);
  return (
    <ul>
      {needs.map((need) => {
        const most = Math.max(need.have, need.need.value, 1e-9);
        return (
          <li key={need.materialId} className="border-b border-rule py-2">
            <div className="flex items-baseline justify-between gap-3">
              <span className="min-w-0 truncate">{need.name}</span>
              <Fig figure={need.need} title={`${need.name} needed`} />
            </div>
            <div className="mt-1 flex items-center gap-3">
              <span className="relative h-2 flex-1 bg-well">
                <span className="block h-full bg-lead" style={{ width: `${(Math.max(0, need.have) / most) * 100}%` }} />
                <span
                  className={`absolute -top-1 -bottom-1 w-[3px] ${need.missing > 0 ? 'bg-stop' : 'bg-ink'}`}
                  style={{ left: `calc(${(need.need.value / most) * 100}% - 2px)` }}
                />
              </span>
              {need.missing > 0 ? (
                <span className="flex items-center gap-1 text-sm font-semibold text-stop">
                  <Icon name="short" size={13} /> {amount(need.kind, need.missing)} missing
                </span>
              ) : (
                <span className="flex items-center gap-1 text-sm text-good">
                  <Icon name="good" size={13} /> {amount(need.kind, need.have)} here
                </span>
              )}
            </div>
          </li>
        );
      })}
    </ul>
  );
}

function Minutes({ plan }: { plan: Plan }) {
  const longest = Math.max(...plan.minutes.map((each) => each.handsS.value), 1);
  return (
    <ul>
      {plan.minutes.map(({ station, does, handsS, waitS }) => (
        <li
          key={`${station} ${does}`}
          className="grid grid-cols-[minmax(64px,auto)_minmax(0,1fr)_auto] items-center gap-3 border-b border-rule py-2"
        >
          <span className="stamp text-[15px] ">{does}</span>
          <span className="h-2.5 bg-well">
            <span className="block h-full bg-lead" style={{ width: `${(handsS.value / longest) * 100}%` }} />
          </span>
          <span className="text-right">
            <Fig figure={handsS} title={`${does}, hands-on`} />
            {waitS && (
              <span className="quiet block">
                <Fig figure={waitS} title="by itself" /> {station === 'bake' ? 'in the oven' : 'by itself'}
              </span>
            )}
          </span>
        </li>
      ))}
    </ul>
  );
}

function Stub({ order, plan, catalogue }: { order: Order; plan: Plan; catalogue: Catalogue }) {
  const units = useUnits();
  const navigate = useNavigate();
  const release = useWrite(() => call('POST /orders/:id/release', { params: { id: order.id } }));
  const shots = plan.molds.reduce((sum, mold) => sum + mold.shots.value, 0);
  const all = (of: (casts: Figure) => number) => plan.lines.reduce((sum, { casts }) => sum + of(casts), 0);
  const casts = { expected: all(({ value }) => value), provision: all(({ value, high = value }) => high) };
  const missing = plan.needs.filter((need) => need.missing > 0);
  const short = missing.find((need) => partKind(need.kind).costs === 'hook');
  return (
    <>
      <TheNumber eyebrow={`Order ${order.number}, ${forWhom(order.customer)}`} value={shots}>
        {shots === 1 ? 'shot' : 'shots'}, {castsSay(casts)}, then{' '}
        {order.lines.reduce((sum, line) => sum + line.quantity, 0)} heads are good
      </TheNumber>
      <dl className="grid grid-cols-[1fr_auto] gap-y-1.5 border-y border-rule-2 py-3">
        <dt>Hands-on</dt>
        <dd className="text-right font-semibold">
          <Fig figure={plan.handsTotal} title="Hands-on time" />
        </dd>
        <dt>Melt from cold</dt>
        <dd className="text-right">
          <Fig figure={plan.melt} title="Melting" />
        </dd>
        <dt>Oven loads</dt>
        <dd className="text-right">
          <Fig figure={plan.ovenLoads} title="Oven loads" />
        </dd>
        <dt>One head, on average</dt>
        <dd className="text-right font-semibold">
          <Fig figure={plan.unitCost} title="Unit cost" />
        </dd>
      </dl>
      {plan.problems.map((problem) => (
        <p key={problem.productId} className="flex gap-2 text-sm font-medium text-stop">
          <Icon name="stop" className="mt-0.5 shrink-0" />
          <span>
            {catalogue.product(problem.productId)?.name}: {units.said(problem.text)}{' '}
            <Link to="/molds" className="underline decoration-rule-2 underline-offset-4">
              To the molds
            </Link>{' '}
            <Link to="/products" className="underline decoration-rule-2 underline-offset-4">
              To the products
            </Link>
          </span>
        </p>
      ))}
      {plan.pins
        .filter((limit) => limit.wanted > pinsFree(limit))
        .map((limit) => (
          <p key={limit.diameterM} className="flex gap-2 text-sm text-watch">
            <Icon name="watch" className="mt-0.5 shrink-0" /> {pinsSay(limit, units.massUnit)}
          </p>
        ))}
      {missing.length > 0 && (
        <p className="flex gap-2 text-sm text-watch">
          <Icon name="watch" className="mt-0.5 shrink-0" />
          {missing.map((need) => need.name).join(', ')}: not enough on the shelf. You can release the order all the same
          {short ? `; at ${short.have} of ${Math.ceil(short.need.value)} hooks the bench asks for more` : ''}.
        </p>
      )}
      <RulesTouched products={order.lines.flatMap(({ productId }) => catalogue.product(productId) ?? [])} />
      <ProblemNote error={release.error} />
      <div className="flex flex-wrap items-center gap-5">
        <Button
          look="main"
          disabled={plan.problems.length > 0 || release.isPending}
          onClick={() => release.mutate(undefined, { onSuccess: () => void navigate('/pour') })}
        >
          Release to the line
        </Button>
        <Button look="quiet" asChild>
          <Link to={`/orders/${order.id}/change`}>Change it</Link>
        </Button>
      </div>
    </>
  );
}

/** An order: its plan while it can still be changed, then what became of it. */
export function OrderPage() {
  const { id = '' } = useParams();
  const { data: order, error } = useOrder(id);
  if (!order) return <Waiting error={error} />;
  return order.status === 'open' ? <PlanPage order={order} /> : <ReleasedOrder order={order} />;
}

function PlanPage({ order }: { order: Order }) {
  const { data: view, error } = usePlan(order.id);
  const catalogue = useCatalogue();
  const units = useUnits();
  if (!view || !catalogue) return <Waiting error={error} />;
  const { plan } = view;
  return (
    <Page stub={<Stub order={order} plan={plan} catalogue={catalogue} />}>
      <HandOver order={order} catalogue={catalogue} />
      <Lines lines={plan.lines} catalogue={catalogue} />
      <div className="mt-3 flex flex-col gap-1.5">
        <Prices lines={plan.lines} />
        {plan.lines.map(({ productId, productName, bake }) => (
          <BakeSays key={productId} name={productName} outcome={bake} />
        ))}
      </div>
      <div className="mt-6 grid gap-x-9 gap-y-6 xl:grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)]">
        <div>
          <Heading>At the pot</Heading>
          {plan.molds.map((mold, index) => (
            <MoldShots key={index} mold={mold} catalogue={catalogue} />
          ))}
          <div className="mt-3 flex items-baseline justify-between">
            <span>Lead to charge</span>
            <span className="fig text-[25px]">
              <Fig figure={plan.charge} title="Lead to charge" />
            </span>
          </div>
          <div className="mt-2 flex h-3.5">
            {plan.chargeParts.map((part, index) => (
              <span
                key={part.label}
                className={['bg-lead', 'bg-rule-2', 'bg-ink', 'bg-well'][index]}
                style={{ width: `${(part.kg / plan.charge.value) * 100}%` }}
              />
            ))}
          </div>
          <p className="quiet mt-1">
            {plan.chargeParts.map((part) => `${part.label} ${units.bulk(part.kg)}`).join(' · ')}
          </p>
          {plan.leadUsed.value > 0 && (
            <p className="mt-1">
              Used up: <Fig figure={plan.leadUsed} title="Lead used up" className="fig" />; sprues and rejects come
              back.
            </p>
          )}
        </div>
        <div>
          <Heading>From the shelf</Heading>
          <Needs needs={plan.needs} />
          <div className="mt-5" />
          <Heading>Minutes by station</Heading>
          <Minutes plan={plan} />
        </div>
      </div>
    </Page>
  );
}

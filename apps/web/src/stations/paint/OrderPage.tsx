import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import {
  changingFigure,
  cupsOf,
  orderCost,
  paintKey,
  stepOfRoute,
  writeSpan,
  type ColourOrderInput,
  type PlanLayer,
} from '@schmelz/core';
import { useEffect, useMemo, useState } from 'react';
import { Button } from '../../design/Button.tsx';
import { Ways } from '../../design/Dials.tsx';
import { Fig } from '../../design/Figure.tsx';
import { Icon } from '../../design/Icon.tsx';
import { FitProgress } from '../../design/Learned.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Head } from '../../drawing/Head.tsx';
import { paintOf, type Paint } from '../../drawing/paint.ts';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { useNow } from '../../shell/clock.ts';
import { useLineState } from '../../shell/line-state.ts';
import { useFit } from '../../workers/useFit.ts';
import { PaintRooms } from './rooms.tsx';

const CUPS = [
  { value: '0', label: 'None', hint: 'cups for one recipe at a time' },
  { value: '1', label: 'One more', hint: 'a powder keeps its cup all night' },
  { value: '2', label: 'Two more', hint: 'two powders keep theirs' },
] as const;
type Cups = (typeof CUPS)[number]['value'];

/** A paint of a night: what is laid on, and on how many heads; 0 where none waits. */
interface NightPaint {
  id: string;
  name: string;
  layers: PlanLayer[];
  paint: Paint;
  heads: number;
}

const isInCups = ({ layers }: NightPaint) => cupsOf(layers).length > 0;

/** A night's paints: what waits for paint or is on its way there, else every recipe on record. */
function nightOf(catalogue: Catalogue, line: NonNullable<ReturnType<typeof useLineState>>) {
  const paints = new Map<string, NightPaint>();
  for (const { product, state, quantity } of line.tickets) {
    for (const { key, station, status, left } of state.steps) {
      const step = stepOfRoute(product.steps, key);
      if (station !== 'paint' || status === 'done' || !step) continue;
      const { layers, recipe } = step;
      const id = paintKey(step);
      const eye = recipe?.eyeColour ?? null;
      const there = paints.get(id) ?? {
        ...{ id, name: recipe?.name || product.name, layers, paint: paintOf(layers, eye), heads: 0 },
      };
      paints.set(id, { ...there, heads: there.heads + (left || quantity) });
    }
  }
  const waiting = [...paints.values()].filter(isInCups);
  if (waiting.length > 1) return { paints: waiting, waits: true };
  const all = [...catalogue.recipes.values()].map((recipe): NightPaint => {
    const { id, name } = recipe;
    return { id, name, layers: catalogue.layers(recipe), paint: catalogue.paintOfRecipe(recipe), heads: 0 };
  });
  return { paints: all.filter(isInCups), waits: false };
}

function inputOf(paints: readonly NightPaint[], spareCups: number): ColourOrderInput {
  const cups = new Map(paints.flatMap(({ layers }) => cupsOf(layers)).map((cup) => [cup.id, cup]));
  return {
    sessions: paints.map(({ id, name, layers, heads }) => {
      return { id, name, heads, colourIds: cupsOf(layers).map((cup) => cup.id) };
    }),
    colours: [...cups.values()],
    spareCups,
  };
}

/** What is said aloud of a recipe that is moved: its name, and where it stands. */
function spoken(order: readonly string[], nameOf: (id: string) => string): Announcements {
  const at = (over: { id: string | number } | null) =>
    over ? `number ${order.indexOf(String(over.id)) + 1} of ${order.length}` : 'where it was';
  return {
    onDragStart: ({ active }) => `${nameOf(String(active.id))} is moved, from ${at(active)}.`,
    onDragOver: ({ active, over }) => `${nameOf(String(active.id))} goes to ${at(over)}.`,
    onDragEnd: ({ active, over }) => `${nameOf(String(active.id))} is ${at(over)}.`,
    onDragCancel: ({ active }) => `${nameOf(String(active.id))} stays where it was.`,
  };
}

function Step({
  index,
  of: { id, name, layers, paint, heads },
  step,
}: {
  index: number;
  of: NightPaint;
  step: { seconds: number; brings: string[]; dirty: string[] };
}) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id });
  const cups = cupsOf(layers);
  return (
    <li
      ref={setNodeRef}
      style={{ transform: transform ? `translate3d(0, ${Math.round(transform.y)}px, 0)` : undefined, transition }}
      className={`grid grid-cols-[44px_34px_120px_minmax(0,1fr)_110px] items-center gap-3 border-b border-rule py-2 ${isDragging ? 'relative z-10 bg-sheet shadow-lg' : 'bg-plate'}`}
    >
      <button
        type="button"
        className="grid size-11 cursor-grab touch-none place-items-center hover:bg-well"
        aria-label={`Move ${name}, number ${index + 1}`}
        {...attributes}
        {...listeners}
      >
        <svg width="14" height="20" viewBox="0 0 14 20" aria-hidden="true">
          {[3, 10, 17].map((y) => (
            <path key={y} d={`M1 ${y}H13`} stroke="currentColor" strokeWidth="2" />
          ))}
        </svg>
      </button>
      <b className="fig text-[23px]">{index + 1}</b>
      <Head style="ball" massKg={0.014} hookSize="3/0" eyeAngleDeg={60} paint={paint} state="baked" scale={2} />
      <span className="min-w-0">
        <b className="font-medium">{name}</b>
        {heads > 0 && <span className="quiet"> · {heads} heads</span>}
        <span className="mt-0.5 flex flex-wrap items-center gap-x-3 text-sm text-ink-2">
          {cups.map((cup) => (
            <span key={cup.id} className="inline-flex items-center gap-1.5">
              <span className="size-3.5 border border-contour" style={{ background: cup.colour }} /> {cup.name}
            </span>
          ))}
        </span>
        {step.dirty.length > 0 && (
          <span className="mt-0.5 flex items-center gap-1.5 text-sm text-watch">
            <Icon name="watch" size={13} /> clean well for {step.dirty.join(', ')}: what was in the cup would show
          </span>
        )}
      </span>
      <span className="text-right">
        <b className="fig text-[19px]">{step.seconds < 1 ? 'nothing' : writeSpan(step.seconds)}</b>
        <span className="quiet block">{step.brings.length === 0 ? 'same cups' : `${step.brings.length} in`}</span>
      </span>
    </li>
  );
}

/**
 * The order of a night's colours: the fewest and cleanest changes, worked out in a worker; dragged, it says what that
 * costs.
 */
export function OrderPage() {
  const catalogue = useCatalogue();
  const now = useNow(10_000);
  const line = useLineState(now);
  const [cups, setCups] = useState<Cups>('0');
  const [own, setOwn] = useState<string[] | null>(null);
  const { state, run, stop } = useFit('colours');
  const night = useMemo(() => (catalogue && line ? nightOf(catalogue, line) : null), [catalogue, line]);
  // What is to be ordered is new only when its recipes are, not at every look at the line.
  const key = night
    ? `${night.paints.map(({ id, heads, layers }) => `${id} ${heads} ${JSON.stringify(layers)}`).join()} ${cups}`
    : '';
  const input = useMemo(
    () => (night ? inputOf(night.paints, Number(cups)) : null),
    [key], // eslint-disable-line react-hooks/exhaustive-deps
  );
  useEffect(() => {
    if (input && input.sessions.length > 0) void run(input);
  }, [input, run]);
  const sensors = useSensors(
    useSensor(PointerSensor),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  if (!catalogue || !night || !input) return <Waiting />;
  const best = state.status === 'done' && state.result.order.length === input.sessions.length ? state.result : null;
  const order = own && best && own.length === best.order.length ? own : (best?.order ?? []);
  const steps = best ? orderCost(input, order, best.kept) : [];
  const seconds = steps.reduce((sum, step) => sum + step.seconds, 0);
  const over = best ? seconds - best.seconds : 0;
  const nameOf = (id: string) => night.paints.find((each) => each.id === id)?.name ?? id;
  const onDragEnd = ({ active, over: onto }: DragEndEvent) => {
    if (onto && active.id !== onto.id)
      setOwn(arrayMove([...order], order.indexOf(String(active.id)), order.indexOf(String(onto.id))));
  };
  return (
    <Page
      stub={
        <>
          <TheNumber
            value={
              best ? (
                <Fig figure={changingFigure(steps, nameOf)} title="Changing colours">
                  {String(Math.round(seconds / 60))}
                </Fig>
              ) : (
                '–'
              )
            }
            unit={best ? 'min' : undefined}
          >
            of changing colours{night.waits ? ' tonight' : ', for every recipe on record'}
          </TheNumber>
          {best && (
            <p className="text-ink-2">
              {over > 1
                ? `${writeSpan(over)} more than the best order.`
                : best.exact
                  ? 'The best order there is.'
                  : 'A good order; so many recipes are not tried out one by one.'}{' '}
              Light before dark, sparkle last, recipes that share a powder side by side.
            </p>
          )}
          {best && best.kept.length > 0 && (
            <p>
              Keeps a cup of its own:{' '}
              {best.kept.map((id) => input.colours.find((cup) => cup.id === id)?.name).join(', ')}.
            </p>
          )}
          <Ways label="Fluid-bed cups to spare" value={cups} options={CUPS} onChange={setCups} />
          {own && over > 1 && (
            <Button className="self-start" onClick={() => setOwn(null)}>
              Back to the best order
            </Button>
          )}
          <FitProgress state={state} onStop={stop} />
          <p className="quiet">
            Drag by the bars, or move with Space and the arrow keys: each change says what it costs.
          </p>
        </>
      }
    >
      <PaintRooms />
      <Heading aside={night.waits ? 'what waits for paint, and what is on its way' : 'nothing waits: all recipes'}>
        In this order
      </Heading>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={onDragEnd}
        accessibility={{ announcements: spoken(order, nameOf) }}
      >
        <SortableContext items={order} strategy={verticalListSortingStrategy}>
          <ol className="max-w-[860px]" aria-label="Order of colours">
            {order.map((id, index) => (
              <Step key={id} index={index} of={night.paints.find((each) => each.id === id)!} step={steps[index]!} />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      {input.sessions.length === 0 && <p className="quiet">No recipe on record yet.</p>}
    </Page>
  );
}

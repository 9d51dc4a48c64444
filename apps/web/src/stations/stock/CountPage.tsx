import type { Material } from '@schmelz/contract';
import { partKind } from '@schmelz/core';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { useList } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Swatch } from '../../shell/Swatch.tsx';
import { useUnits } from '../../units/Units.tsx';
import { useCounts } from './counts.ts';

const KEYS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0', '⌫'] as const;
const GRAMS = 1000;

/** What is typed stands for pieces, or for grams where it lies on a scale. */
const quantityOf = (material: Material, text: string) =>
  Number(text) / (partKind(material.kind).unit === 'kg' ? GRAMS : 1);

/** Shelf by shelf in the order in which things lie there: hooks, powder, metal, the rest. */
const KIND_ORDER = ['hook', 'powder', 'lead'];
const inOrder = (materials: readonly Material[]) =>
  materials
    .filter(({ archived }) => !archived)
    .sort((a, b) => {
      const at = ({ kind }: Material) => (KIND_ORDER.indexOf(kind) + KIND_ORDER.length + 1) % (KIND_ORDER.length + 1);
      return at(a) - at(b) || a.name.localeCompare(b.name);
    });

/** A count for one hand: one thing at a time, large keys, and no network needed until it is over. */
export function CountPage() {
  const { data: materials, error } = useList('materials');
  return materials ? <Counting materials={materials} /> : <Waiting error={error} />;
}

function Counting({ materials }: { materials: readonly Material[] }) {
  const units = useUnits();
  const { waiting, say, clear } = useCounts();
  const [at, setAt] = useState(0);
  const [text, setText] = useState('');
  /** As the shelf was when the count began: what is counted here moves none of it to another place. */
  const [list] = useState(() => inOrder(materials));
  const press = (key: string) => {
    if (key === '⌫') setText((now) => now.slice(0, -1));
    else if (key !== '.' || !text.includes('.')) setText((now) => (now + key).slice(0, 9));
  };
  const go = (by: number) => {
    setText('');
    setAt((now) => Math.max(0, now + by));
  };
  const material = list[at];
  const keep = () => {
    if (!material || text === '' || text === '.') return;
    say({ materialId: material.id, name: material.name, quantity: quantityOf(material, text) });
    go(1);
  };
  useEffect(() => {
    const onKey = ({ key, target }: KeyboardEvent) => {
      // Enter on a button or a link is that one's own.
      const onButton = target instanceof HTMLButtonElement || target instanceof HTMLAnchorElement;
      if (key === 'Enter' && !onButton) keep();
      else if (key === 'Backspace') press('⌫');
      else if (/^[0-9.]$/.test(key)) press(key);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
  const refused = waiting.filter((each) => each.refused);
  const unit = material && (partKind(material.kind).unit === 'kg' ? 'g' : partKind(material.kind).unit);
  return (
    <div className="mx-auto flex max-w-[460px] flex-col gap-4 px-4 py-4">
      <p className="quiet flex justify-between">
        <span>
          {Math.min(at + 1, list.length)} of {list.length}
        </span>
        <span>
          {waiting.length > refused.length ? `${waiting.length - refused.length} wait to be sent` : 'all sent'}
        </span>
      </p>
      {refused.map((each) => (
        <p key={each.id} role="alert" className="cut flex items-center justify-between gap-3 bg-stop-wash px-4 py-2">
          <span>
            {each.name} did not count, because {each.refused}
          </span>
          <Button onClick={() => clear(each.id)}>Seen</Button>
        </p>
      ))}
      {material ? (
        <>
          <div>
            <h1 className="voice flex items-center gap-3 text-[25px]">
              <Swatch material={material} /> {material.name}
            </h1>
            <p className="quiet">By the books {units.part(material.kind, material.quantity)}.</p>
          </div>
          <output
            aria-label="Counted"
            className="fig flex h-[92px] items-end justify-end gap-3 border-b-2 border-contour text-[84px]"
          >
            {text || <span className="text-ink-3">–</span>} <span className="pb-2 text-2xl">{unit}</span>
          </output>
          <div className="grid grid-cols-3 gap-2">
            {KEYS.map((key) => (
              <button
                key={key}
                type="button"
                aria-label={key === '⌫' ? 'Take the last digit back' : key}
                className="fig h-[68px] border border-rule-2 bg-sheet text-[34px] active:bg-well"
                onClick={() => press(key)}
              >
                {key}
              </button>
            ))}
          </div>
          <div className="grid grid-cols-[1fr_1fr_1.6fr] gap-2">
            <Button className="h-16 justify-center" disabled={at === 0} onClick={() => go(-1)}>
              Back
            </Button>
            <Button className="h-16 justify-center" onClick={() => go(1)}>
              Skip
            </Button>
            <Button look="main" className="h-16 justify-center" disabled={text === '' || text === '.'} onClick={keep}>
              That many
            </Button>
          </div>
        </>
      ) : (
        <>
          <h1 className="voice text-[25px]">Everything was looked at.</h1>
          <p className="quiet">
            {waiting.length > 0
              ? 'What waits is sent as soon as the server answers.'
              : 'The books say what you counted.'}
          </p>
          <Button onClick={() => setAt(0)}>Once more from the beginning</Button>
        </>
      )}
      <Link className="underline underline-offset-4" to="/stock">
        To the shelves
      </Link>
    </div>
  );
}

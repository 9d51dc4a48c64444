import { parseMass } from '@schmelz/core';
import { Button } from '../../design/Button.tsx';
import { TextField } from '../../design/Field.tsx';
import { Icon } from '../../design/Icon.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { ScaleReadout } from '../../design/ScaleReadout.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { useUnits } from '../../units/Units.tsx';
import { useState } from 'react';

/** What was cut off so far, for the pot. */
export function SprueBack({ kg }: { kg: number }) {
  const units = useUnits();
  return (
    <p className="flex items-center gap-2 text-lg text-ink-2">
      <Icon name="good" /> {units.bulk(kg)} of sprue back for the pot
    </p>
  );
}

/** Cut-off sprues on the scale; filings never belong to them. */
export function SprueForm({
  open,
  onOpenChange,
  onWeighed,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onWeighed: (kg: number) => void;
}) {
  const { massUnit } = useUnits();
  const [mass, setMass] = useState('');
  const [problem, setProblem] = useState<unknown>(null);
  const weighed = (kg: number) => {
    onWeighed(Math.round(kg * 1e5) / 1e5);
    setMass('');
    setProblem(null);
    onOpenChange(false);
  };
  return (
    <Sheet
      open={open}
      onOpenChange={onOpenChange}
      title="Sprues back"
      says="Clean lead for the next melt. Filings stay out of it."
    >
      <form
        className="flex flex-col gap-4"
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          try {
            weighed(parseMass(mass, massUnit));
          } catch (error) {
            setProblem(error);
          }
        }}
      >
        <ScaleReadout onTake={weighed} />
        <TextField
          label="They weigh"
          hint={`Such as ${massUnit === 'g' ? '240 g' : '8.5 oz'}.`}
          value={mass}
          onChange={(event) => setMass(event.target.value)}
        />
        <ProblemNote error={problem} />
        <Button look="main" type="submit" className="self-start">
          Keep this weight
        </Button>
      </form>
    </Sheet>
  );
}

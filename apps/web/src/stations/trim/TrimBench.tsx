import { useState } from 'react';
import { CountFrame, type BenchProps } from '../../counting/CountFrame.tsx';
import { SprueBack, SprueForm } from './Sprue.tsx';

/** Sprue off, edge smoothed, counted; what was cut off is weighed back for the pot. */
export function TrimBench(props: BenchProps) {
  const { bench } = props;
  const [weighing, setWeighing] = useState(false);
  return (
    <>
      <CountFrame
        {...props}
        extra={[{ key: 'W', label: 'Sprues weighed', weight: 'quiet', run: () => setWeighing(true) }]}
        beside={bench.here.sprueKg > 0 && <SprueBack kg={bench.here.sprueKg} />}
      />
      <SprueForm open={weighing} onOpenChange={setWeighing} onWeighed={bench.sprue} />
    </>
  );
}

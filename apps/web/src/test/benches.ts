import type { StationBench } from '../counting/CountBench.tsx';
import { BakeBench } from '../stations/bake/BakeBench.tsx';
import { FinishBench } from '../stations/finish/FinishBench.tsx';
import { PaintBench } from '../stations/paint/PaintBench.tsx';
import { TrimBench } from '../stations/trim/TrimBench.tsx';

/** The benches of the stations, as the router names them. */
export const BENCHES: Readonly<Record<string, StationBench>> = {
  trim: TrimBench,
  paint: PaintBench,
  bake: BakeBench,
  finish: FinishBench,
};

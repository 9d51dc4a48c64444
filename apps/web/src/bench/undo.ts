import type { BenchAction } from './BenchFrame.tsx';

/** What a bench can take back, and bring back when that was a slip. */
export interface TakingBack {
  last: { kind: string } | undefined;
  /** Whether the last thing that was said was an undo. */
  canBringBack: boolean;
  undo(): void;
  bringBack(): void;
}

export const undoActions = ({ last, canBringBack, undo, bringBack }: TakingBack): BenchAction[] => [
  { key: 'Z', label: 'Undo', hint: last?.kind, weight: 'quiet', disabled: !last, run: undo },
  ...(canBringBack
    ? [{ key: 'Y', label: 'Bring back', hint: 'what was undone', weight: 'quiet', run: bringBack } as const]
    : []),
];

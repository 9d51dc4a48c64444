import type { Gift, GiftKind, TakenGift } from '@schmelz/contract';
import { useState } from 'react';
import { toast } from '../design/toast.ts';
import { call, request } from '../api/client.ts';
import { useWrite } from '../api/queries.ts';
import { Button } from '../design/Button.tsx';
import { ProblemNote } from '../design/Notice.tsx';

/** A link that gives a thing to another maker as a small file. */
export const GiveIt = ({ kind, id, name }: { kind: GiftKind; id: string; name: string }) => (
  <a className="quiet underline underline-offset-4" href={`/api/give/${kind}/${id}`} download={`${name}.schmelz.json`}>
    As a file for another maker
  </a>
);

/** Takes what another maker has given: shown first, then all of it or nothing, and it can be taken back. */
export function TakeGift() {
  const [seen, setSeen] = useState<{ gift: Gift; says: string[] } | null>(null);
  const [problem, setProblem] = useState<unknown>(null);
  const take = useWrite((gift: Gift) => call('POST /take', { body: gift }));
  const back = useWrite(async (made: TakenGift['made']) => {
    for (const { path, id } of [...made].reverse()) await request('DELETE', `/${path}/${id}`);
  });
  const look = async (file: File | undefined) => {
    setProblem(null);
    setSeen(null);
    if (!file) return;
    try {
      const gift = JSON.parse(await file.text()) as Gift;
      const { says } = await call('POST /take', { query: { look: 'true' }, body: gift });
      setSeen({ gift, says });
    } catch (error) {
      setProblem(
        error instanceof SyntaxError ? new Error(`${file.name} is no file that a maker gives: no JSON.`) : error,
      );
    }
  };
  const undo = (made: TakenGift['made']) =>
    back.mutate(made, { onSuccess: () => void toast('It is taken back.'), onError: setProblem });
  return (
    <div className="flex flex-col gap-2">
      <label className="quiet block">
        From another maker
        <input
          type="file"
          accept=".json,application/json"
          className="mt-1 block w-full text-sm"
          onChange={(event) => void look(event.target.files?.[0])}
        />
      </label>
      {seen && (
        <div className="cut bg-well px-4 py-3">
          <ul>
            {seen.says.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
          <div className="mt-2 flex gap-3">
            <Button
              disabled={take.isPending}
              onClick={() =>
                take.mutate(seen.gift, {
                  onSuccess: ({ made }) => {
                    setSeen(null);
                    toast('It is here.', {
                      action: { label: 'Take it back', onClick: () => undo(made) },
                      duration: 15_000,
                    });
                  },
                })
              }
            >
              Take it
            </Button>
            <Button look="quiet" onClick={() => setSeen(null)}>
              Leave it
            </Button>
          </div>
        </div>
      )}
      <ProblemNote error={problem ?? take.error} />
    </div>
  );
}

import { useState } from 'react';
import { toast } from '../design/toast.ts';
import { call } from '../api/client.ts';
import { useWrite } from '../api/queries.ts';
import { Button } from '../design/Button.tsx';
import { ProblemNote } from '../design/Notice.tsx';

type Kind = 'materials' | 'molds' | 'products';
/** The others are small: they are deleted, or stay. */
type Deletable = Kind | 'recipes' | 'bake-programs' | 'suppliers' | 'tools' | 'rules';

const KINDS: readonly string[] = ['materials', 'molds', 'products'] satisfies Kind[];
const isKind = (path: Deletable): path is Kind => KINDS.includes(path);

/**
 * For what was made by mistake, and for what is no longer wanted: deleted while nothing names it, put away after, where
 * its records stay and it can be brought back.
 */
export function PutAway({
  path,
  thing: { id, name, archived },
  onGone,
}: {
  path: Deletable;
  thing: { id: string; name: string; archived?: boolean | null };
  onGone?: () => void;
}) {
  const [asking, setAsking] = useState(false);
  const remove = useWrite(() => call(`DELETE /${path}/:id` as 'DELETE /pots/:id', { params: { id } }));
  const away = useWrite((off: boolean) => call('POST /put-away', { body: { kind: path as Kind, id, archived: off } }));
  const gone = (says: string) => () => {
    toast(`${name} ${says}.`);
    setAsking(false);
    onGone?.();
  };
  if (archived) {
    return (
      <div className="flex flex-col gap-2">
        <p className="quiet">Put away: on no list and in no plan.</p>
        <Button className="self-start" onClick={() => away.mutate(false, { onSuccess: gone('is back on the lists') })}>
          Bring it back
        </Button>
        <ProblemNote error={away.error} />
      </div>
    );
  }
  if (!asking) {
    return (
      <Button look="quiet" className="self-start" onClick={() => setAsking(true)}>
        {isKind(path) ? 'Delete it, or put it away' : 'Delete it'}
      </Button>
    );
  }
  return (
    <div className="flex flex-col gap-2 border-t border-rule pt-3">
      <p>
        {isKind(path)
          ? `Delete ${name} if it was made by mistake. Put it away if it was used: its records stay.`
          : `Delete ${name}? Nothing else is deleted with it.`}
      </p>
      <div className="flex flex-wrap gap-3">
        <Button disabled={remove.isPending} onClick={() => remove.mutate(undefined, { onSuccess: gone('is deleted') })}>
          Delete it
        </Button>
        {isKind(path) && (
          <Button disabled={away.isPending} onClick={() => away.mutate(true, { onSuccess: gone('is put away') })}>
            Put it away
          </Button>
        )}
        <Button look="quiet" onClick={() => setAsking(false)}>
          Leave it
        </Button>
      </div>
      <ProblemNote error={away.error ?? remove.error} />
    </div>
  );
}

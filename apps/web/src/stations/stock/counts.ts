import { useEffect, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { ApiProblem, call } from '../../api/client.ts';
import { newId } from '../../api/id.ts';

/** One count as it was said at the shelf, until the server has it. */
interface SaidCount {
  id: string;
  materialId: string;
  name: string;
  quantity: number;
  /** Why the server would not have it; it stays until it was seen. */
  refused?: string;
}
const KEY = 'schmelz.counts';
const AGAIN_MS = 4000;

function read(): SaidCount[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEY) ?? '[]');
    return Array.isArray(kept) ? (kept as SaidCount[]) : [];
  } catch {
    return []; // written by something else: nothing of it can be a count
  }
}

/**
 * Counts that wait on this device: said without a network, sent when there is one, each once by its own id. What the
 * server refuses stays with its reason until it is cleared.
 */
export function useCounts() {
  const queries = useQueryClient();
  const [waiting, setWaiting] = useState(read);
  const keep = (next: SaidCount[]) => {
    localStorage.setItem(KEY, JSON.stringify(next));
    setWaiting(next);
  };
  useEffect(() => {
    let over = false;
    const send = async () => {
      for (const one of read().filter(({ refused }) => !refused)) {
        const { id, materialId, quantity } = one;
        try {
          await call('POST /materials/:id/counts', { params: { id: materialId }, body: { id, quantity, note: '' } });
          keep(read().filter((each) => each.id !== id));
          void queries.invalidateQueries({ queryKey: ['materials'] });
        } catch (error) {
          // No network, no server, not logged in: later.
          const later = !(error instanceof ApiProblem) || error.problem.status >= 500 || error.problem.status === 401;
          if (later) return;
          keep(read().map((each) => (each.id === id ? { ...each, refused: error.message } : each)));
        }
        if (over) return;
      }
    };
    void send();
    const timer = setInterval(() => void send(), AGAIN_MS);
    return () => {
      over = true;
      clearInterval(timer);
    };
  }, [queries, waiting.length]);
  return {
    waiting,
    say: (count: Omit<SaidCount, 'id'>) =>
      keep([...read().filter(({ materialId }) => materialId !== count.materialId), { ...count, id: newId() }]),
    clear: (id: string) => keep(read().filter((each) => each.id !== id)),
  };
}

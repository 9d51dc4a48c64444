import { useQuery } from '@tanstack/react-query';
import { wrap } from 'comlink';
import { call } from '../api/client.ts';
import type { Buyer } from '../workers/buyer.worker.ts';
import { startBuyer } from '../workers/start.ts';

/** What all open work still takes of each material, by id; undefined until a worker has reckoned it. */
export function useReserved(): ReadonlyMap<string, number> | undefined {
  const { data: asked } = useQuery({ queryKey: ['tonight'], queryFn: () => call('GET /tonight') });
  const { data } = useQuery({
    queryKey: ['stock', 'reserved', asked],
    enabled: asked !== undefined,
    queryFn: async ({ signal }) => {
      const worker = startBuyer();
      signal.addEventListener('abort', () => worker.terminate());
      try {
        return new Map((await wrap<Buyer>(worker).needs(asked!)).map(({ materialId, need }) => [materialId, need]));
      } finally {
        worker.terminate();
      }
    },
    staleTime: Infinity,
    retry: false,
  });
  return data;
}

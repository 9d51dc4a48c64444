import { fillRecordsIn } from '@schmelz/contract';
import { queryOptions, useQuery } from '@tanstack/react-query';
import { call } from './client.ts';

/** What a mold's cavities gave, pour by pour, with the heat and the soot they were cast at. */
export const fillRecordsOf = (moldId: string) =>
  queryOptions({
    queryKey: ['fill-records', moldId],
    queryFn: async () => fillRecordsIn(await call('GET /molds/:id/fill-records', { params: { id: moldId } })),
  });
export const useFillRecords = (moldId: string | undefined) =>
  useQuery({ ...fillRecordsOf(moldId ?? ''), enabled: moldId !== undefined });

/** What worked in a mold so far, and how many blank shots are sure. */
export const handlingOfMold = (moldId: string) =>
  queryOptions({
    queryKey: ['handling', moldId],
    queryFn: () => call('GET /molds/:id/handling', { params: { id: moldId } }),
  });

import type {
  Notes,
  RecordInput,
  ResourceInputs,
  ResourceLists,
  ResourcePath,
  ResourceReads,
  SettingsView,
  Stored,
} from '@schmelz/contract';
import {
  keepPreviousData,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
  type QueryClient,
} from '@tanstack/react-query';
import { call } from './client.ts';

export const useSettings = () => useQuery({ queryKey: ['settings'], queryFn: () => call('GET /settings') });

/** Settings as they are written back: what only the view has is left out, its version stays. */
export const settingsInput = ({
  dataFolder: _folder,
  passwordSet: _password,
  sessions: _open,
  ...settings
}: SettingsView) => settings;

/** What is said of one resource holds for all of them: the compiler is told by the path. */
const listOf = <P extends ResourcePath>(path: P) =>
  call(`GET /${path}` as 'GET /pots') as Promise<unknown> as Promise<ResourceLists[P][]>;

/** All things of one kind. */
export const useList = <P extends ResourcePath>(path: P) => useQuery({ queryKey: [path], queryFn: () => listOf(path) });

/** Open tickets and pours; asked again every few seconds, so that two devices see the same line. */
export const useLine = () => useQuery({ queryKey: ['line'], queryFn: () => call('GET /line'), refetchInterval: 8000 });

/** What was closed in a period, newest first. */
export const useTickets = (period: { from: number; to: number }) =>
  useQuery({
    queryKey: ['tickets', 'closed', period.from, period.to],
    queryFn: () => call('GET /tickets', { query: { from: period.from, to: period.to } }),
    placeholderData: keepPreviousData,
  });
/** What went into the oven in a period and has come out. */
export const useBakes = (period: { from: number; to: number }) =>
  useQuery({
    queryKey: ['bakes', period.from, period.to],
    queryFn: () => call('GET /bakes', { query: { from: period.from, to: period.to } }),
    placeholderData: keepPreviousData,
  });
/** When the first and the last ticket were closed; null where none is. */
export const useBookedPeriod = () =>
  useQuery({
    queryKey: ['tickets', 'booked'],
    queryFn: () => call('GET /books/period'),
  });
export const useTicket = (id: string) =>
  useQuery({ queryKey: ['tickets', id], queryFn: () => call('GET /tickets/:id', { params: { id } }) });
export const usePours = () => useQuery({ queryKey: ['pours'], queryFn: () => call('GET /pours') });
/** Pours of one mold, or the one that went on at a moment. */
export const usePoursOf = (which: { moldId: string } | { at: number } | null) => {
  const query = which === null ? {} : 'moldId' in which ? { mold: which.moldId } : { at: Math.round(which.at) };
  return useQuery({
    queryKey: ['pours', query],
    queryFn: () => call('GET /pours/whole', { query }),
    enabled: which !== null,
  });
};
/** One pour; asked again every few seconds while it is open, so that two devices at one pot see the same. */
export const usePour = (id: string) =>
  useQuery({
    queryKey: ['pours', id],
    queryFn: () => call('GET /pours/:id', { params: { id } }),
    refetchInterval: (query) => (query.state.data?.closed ? false : 3000),
  });
/** Orders to do, and the done ones as far back as was asked for. */
export const useOrders = () =>
  useInfiniteQuery({
    queryKey: ['orders', 'pages'],
    queryFn: ({ pageParam }) => call('GET /orders', pageParam ? { query: { before: pageParam } } : {}),
    initialPageParam: 0,
    getNextPageParam: (page) => page.filter(({ status }) => status === 'done').at(-1)?.number,
    select: ({ pages }) => pages.flat(),
  });
export const useOrder = (id: string) =>
  useQuery({ queryKey: ['orders', id], queryFn: () => call('GET /orders/:id', { params: { id } }) });
export const usePlan = (id: string) =>
  useQuery({ queryKey: ['plan', id], queryFn: () => call('GET /orders/:id/plan', { params: { id } }) });
export const useOrderTickets = (id: string) =>
  useQuery({ queryKey: ['orders', id, 'tickets'], queryFn: () => call('GET /orders/:id/tickets', { params: { id } }) });
export const useMoves = (id: string) =>
  useQuery({ queryKey: ['moves', id], queryFn: () => call('GET /materials/:id/moves', { params: { id } }) });

/** Deliveries of a part, newest first, with whose heads took from each. */
export const usePartLots = (id: string) =>
  useQuery({ queryKey: ['part-lots', id], queryFn: () => call('GET /materials/:id/lots', { params: { id } }) });

export const useLots = () => useQuery({ queryKey: ['lead-lots'], queryFn: () => call('GET /lead-lots') });

/** Files that were taken in, newest first. */
export const useImports = () => useQuery({ queryKey: ['imports'], queryFn: () => call('GET /imports') });

export const useJars = () => useQuery({ queryKey: ['jars'], queryFn: () => call('GET /jars') });

/** Notes of one kind: the server answers with those that were asked for. */
const notesOf = <K extends keyof Notes>(kind: K, thing?: string) =>
  call('GET /records/:kind', { params: { kind }, query: { thing } }) as Promise<Notes[K][]>;
/** Dated notes of one kind upon anything, oldest first. */
export const useAllRecords = <K extends keyof Notes>(kind: K) =>
  useQuery({ queryKey: ['records', kind], queryFn: () => notesOf(kind) });
/** Dated notes upon a thing, oldest first. */
export const useRecords = <K extends keyof Notes>(kind: K, thingId: string | undefined) =>
  useQuery({
    queryKey: ['records', kind, thingId],
    queryFn: () => notesOf(kind, thingId),
    enabled: thingId !== undefined,
  });
export const useNote = () => useWrite((input: RecordInput) => call('POST /records', { body: input }));
export const useStrike = () => useWrite((id: string) => call('POST /records/:id/strike', { params: { id } }));

export const useChannels = () =>
  useQuery({ queryKey: ['channels'], queryFn: () => call('GET /channels'), refetchInterval: 20_000 });
export const useReadings = (channel: number | undefined, from: number, to: number, points = 400) =>
  useQuery({
    queryKey: ['readings', channel, from, to, points],
    queryFn: () =>
      call('GET /readings', { query: { channel: channel!, from: Math.round(from), to: Math.round(to), points } }),
    enabled: channel !== undefined,
    placeholderData: (before) => before,
  });

/** Whatever was written may have moved stock, plans and tickets: everything that is shown is asked for again. */
export const refresh = (client: QueryClient) => client.invalidateQueries();

/** What a tap changes that is on the screen while taps are made: the line, and the ticket, pour or run itself. */
const TAPPED = new Set(['tickets', 'pours', 'runs']);
const tapped = ([of, id]: readonly unknown[]) => of === 'line' || (TAPPED.has(of as string) && id !== undefined);

/**
 * After taps the line and what was tapped are asked for again. All else that may have moved with them, stock among it,
 * is known to be old and is asked for when it is next looked at.
 */
export async function refreshAfterTaps(client: QueryClient): Promise<void> {
  await client.invalidateQueries({ refetchType: 'none' });
  await client.refetchQueries({ type: 'active', predicate: ({ queryKey }) => tapped(queryKey) });
}

/** A write followed by a fresh look at everything. */
export function useWrite<Input, Output = unknown>(write: (input: Input) => Promise<Output>) {
  const client = useQueryClient();
  // Not awaited: the fresh look may take the writer off the page before it has gone where it wanted to.
  return useMutation({ mutationFn: write, onSuccess: () => void refresh(client) });
}

/** Makes or changes one thing; with `id` and `version` it is a change. */
export const useSave = <P extends ResourcePath>(path: P) =>
  useWrite(
    ({ id, ...body }: ResourceInputs[P] & Partial<Stored>) =>
      (id
        ? call(`PUT /${path}/:id` as 'PUT /pots/:id', { params: { id }, body: body as never })
        : call(`POST /${path}` as 'POST /pots', { body: body as never })) as Promise<unknown> as Promise<
        ResourceReads[P]
      >,
  );

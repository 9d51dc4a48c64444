import type {
  BakeOnRecord,
  BakeProgram,
  Care,
  CavityPour,
  Channel,
  DialMark,
  Heating,
  ImportOnRecord,
  JarView,
  Sample,
  LeadLot,
  LineView,
  Material,
  Mold,
  Order,
  Oven,
  Part,
  PlanView,
  Pot,
  PartLot,
  Pour,
  PourOnList,
  Product,
  ReadingsView,
  Recipe,
  RecordInput,
  ResourcePath,
  SettingsView,
  StockFlow,
  StockMove,
  Ticket,
  TicketOnList,
  Trial,
} from '@schmelz/contract';
import {
  keepPreviousData,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
  type QueryClient,
} from '@tanstack/react-query';
import { request } from './client.ts';

interface ResourceTypes {
  materials: Material;
  molds: Mold;
  pots: Pot;
  ovens: Oven;
  parts: Part;
  recipes: Recipe;
  'bake-programs': BakeProgram;
  products: Product;
  orders: Order;
}

export const useSettings = () =>
  useQuery({ queryKey: ['settings'], queryFn: () => request<SettingsView>('GET', '/settings') });

/** Settings as they are written back: what only the view has is left out, its version stays. */
export const settingsInput = ({
  dataFolder: _folder,
  passwordSet: _password,
  sessions: _open,
  ...settings
}: SettingsView) => settings;

/** All things of one kind. */
export const useList = <P extends ResourcePath>(path: P) =>
  useQuery({ queryKey: [path], queryFn: () => request<ResourceTypes[P][]>('GET', `/${path}`) });

/** Open tickets and pours; asked again every few seconds, so that two devices see the same line. */
export const useLine = () =>
  useQuery({ queryKey: ['line'], queryFn: () => request<LineView>('GET', '/line'), refetchInterval: 8000 });

/** A stretch of time as an address asks for it. */
const during = ({ from, to }: { from: number; to: number }) => `from=${from}&to=${to}`;

/** What was closed in a period, newest first. */
export const useTickets = (period: { from: number; to: number }) =>
  useQuery({
    queryKey: ['tickets', 'closed', period.from, period.to],
    queryFn: () => request<TicketOnList[]>('GET', `/tickets?${during(period)}`),
    placeholderData: keepPreviousData,
  });
/** What went into the oven in a period and has come out. */
export const useBakes = (period: { from: number; to: number }) =>
  useQuery({
    queryKey: ['bakes', period.from, period.to],
    queryFn: () => request<BakeOnRecord[]>('GET', `/bakes?${during(period)}`),
    placeholderData: keepPreviousData,
  });
/** When the first and the last ticket were closed; null where none is. */
export const useBookedPeriod = () =>
  useQuery({
    queryKey: ['tickets', 'booked'],
    queryFn: () => request<{ from: number; to: number } | null>('GET', '/books/period'),
  });
export const useTicket = (id: string) =>
  useQuery({ queryKey: ['tickets', id], queryFn: () => request<Ticket>('GET', `/tickets/${id}`) });
export const usePours = () => useQuery({ queryKey: ['pours'], queryFn: () => request<PourOnList[]>('GET', '/pours') });
/** Pours of one mold, or the one that went on at a moment. */
export const usePoursOf = (which: { moldId: string } | { at: number } | null) => {
  const query = which === null ? '' : 'moldId' in which ? `mold=${which.moldId}` : `at=${Math.round(which.at)}`;
  return useQuery({
    queryKey: ['pours', query],
    queryFn: () => request<Pour[]>('GET', `/pours?${query}`),
    enabled: which !== null,
  });
};
/** One pour; asked again every few seconds while it is open, so that two devices at one pot see the same. */
export const usePour = (id: string) =>
  useQuery({
    queryKey: ['pours', id],
    queryFn: () => request<Pour>('GET', `/pours/${id}`),
    refetchInterval: (query) => (query.state.data?.closed ? false : 3000),
  });
/** Orders to do, and the done ones as far back as was asked for. */
export const useOrders = () =>
  useInfiniteQuery({
    queryKey: ['orders', 'pages'],
    queryFn: ({ pageParam }) => request<Order[]>('GET', pageParam ? `/orders?before=${pageParam}` : '/orders'),
    initialPageParam: 0,
    getNextPageParam: (page) => page.filter(({ status }) => status === 'done').at(-1)?.number,
    select: ({ pages }) => pages.flat(),
  });
export const useOrder = (id: string) =>
  useQuery({ queryKey: ['orders', id], queryFn: () => request<Order>('GET', `/orders/${id}`) });
export const usePlan = (id: string) =>
  useQuery({ queryKey: ['plan', id], queryFn: () => request<PlanView>('GET', `/orders/${id}/plan`) });
export const useMoves = (id: string) =>
  useQuery({ queryKey: ['moves', id], queryFn: () => request<StockMove[]>('GET', `/materials/${id}/moves`) });

/** Deliveries of a part, newest first, with whose heads took from each. */
export const usePartLots = (id: string) =>
  useQuery({ queryKey: ['part-lots', id], queryFn: () => request<PartLot[]>('GET', `/materials/${id}/lots`) });
export const useFlows = (id: string) =>
  useQuery({ queryKey: ['flows', id], queryFn: () => request<StockFlow[]>('GET', `/materials/${id}/flows`) });

export const useLots = () =>
  useQuery({ queryKey: ['lead-lots'], queryFn: () => request<LeadLot[]>('GET', '/lead-lots') });

/** Files that were taken in, newest first. */
export const useImports = () =>
  useQuery({ queryKey: ['imports'], queryFn: () => request<ImportOnRecord[]>('GET', '/imports') });

export const useJars = () => useQuery({ queryKey: ['jars'], queryFn: () => request<JarView[]>('GET', '/jars') });

interface RecordTypes {
  care: Care;
  trial: Trial;
  dial: DialMark;
  heating: Heating;
  sample: Sample;
}
/** Dated notes of one kind upon anything, oldest first. */
export const useAllRecords = <K extends keyof RecordTypes>(kind: K) =>
  useQuery({ queryKey: ['records', kind], queryFn: () => request<RecordTypes[K][]>('GET', `/records/${kind}`) });
/** Dated notes upon a thing, oldest first. */
export const useRecords = <K extends keyof RecordTypes>(kind: K, thingId: string | undefined) =>
  useQuery({
    queryKey: ['records', kind, thingId],
    queryFn: () => request<RecordTypes[K][]>('GET', `/records/${kind}?thing=${thingId}`),
    enabled: thingId !== undefined,
  });
export const useNote = () => useWrite((input: RecordInput) => request('POST', '/records', input));
export const useStrike = () => useWrite((id: string) => request('POST', `/records/${id}/strike`));

export const useFillRecords = (moldId: string | undefined) =>
  useQuery({
    queryKey: ['fill-records', moldId],
    queryFn: () => request<CavityPour[]>('GET', `/molds/${moldId}/fill-records`),
    enabled: moldId !== undefined,
  });

export const useChannels = () =>
  useQuery({ queryKey: ['channels'], queryFn: () => request<Channel[]>('GET', '/channels'), refetchInterval: 20_000 });
export const useReadings = (channel: number | undefined, from: number, to: number, points = 400) =>
  useQuery({
    queryKey: ['readings', channel, from, to, points],
    queryFn: () =>
      request<ReadingsView>(
        'GET',
        `/readings?channel=${channel}&from=${Math.round(from)}&to=${Math.round(to)}&points=${points}`,
      ),
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
  useWrite(({ id, ...body }: Record<string, unknown> & { id?: string }) =>
    id ? request<ResourceTypes[P]>('PUT', `/${path}/${id}`, body) : request<ResourceTypes[P]>('POST', `/${path}`, body),
  );

import type {
  BakeProgram,
  LineView,
  Material,
  Mold,
  Order,
  Oven,
  Part,
  PlanView,
  Pot,
  Pour,
  Product,
  Recipe,
  ResourcePath,
  SettingsView,
  StockFlow,
  StockMove,
  Ticket,
} from '@schmelz/contract';
import { useMutation, useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
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

/** All things of one kind. */
export const useList = <P extends ResourcePath>(path: P) =>
  useQuery({ queryKey: [path], queryFn: () => request<ResourceTypes[P][]>('GET', `/${path}`) });

/** Open tickets and pours; asked again every few seconds, so that two devices see the same line. */
export const useLine = () =>
  useQuery({ queryKey: ['line'], queryFn: () => request<LineView>('GET', '/line'), refetchInterval: 8000 });

export const useTickets = () =>
  useQuery({ queryKey: ['tickets'], queryFn: () => request<Ticket[]>('GET', '/tickets') });
export const useTicket = (id: string) =>
  useQuery({ queryKey: ['tickets', id], queryFn: () => request<Ticket>('GET', `/tickets/${id}`) });
export const usePours = () => useQuery({ queryKey: ['pours'], queryFn: () => request<Pour[]>('GET', '/pours') });
export const usePour = (id: string) =>
  useQuery({ queryKey: ['pours', id], queryFn: () => request<Pour>('GET', `/pours/${id}`) });
export const useOrder = (id: string) =>
  useQuery({ queryKey: ['orders', id], queryFn: () => request<Order>('GET', `/orders/${id}`) });
export const usePlan = (id: string) =>
  useQuery({ queryKey: ['plan', id], queryFn: () => request<PlanView>('GET', `/orders/${id}/plan`) });
export const useMoves = (id: string) =>
  useQuery({ queryKey: ['moves', id], queryFn: () => request<StockMove[]>('GET', `/materials/${id}/moves`) });

export const useFlows = (id: string) =>
  useQuery({ queryKey: ['flows', id], queryFn: () => request<StockFlow[]>('GET', `/materials/${id}/flows`) });

/** Whatever was written may have moved stock, plans and tickets: everything that is shown is asked for again. */
export const refresh = (client: QueryClient) => client.invalidateQueries();

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

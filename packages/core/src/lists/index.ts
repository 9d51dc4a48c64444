export { DAY_ORDERS, type DayOrder, type ListRow } from './cells.ts';
export * from './purchases.ts';
export * from './evenings.ts';

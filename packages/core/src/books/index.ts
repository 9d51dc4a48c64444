export * from './flow.ts';
export * from './price.ts';
export * from './reject-cost.ts';
export * from './sales.ts';
export * from './what-if.ts';
export * from './years.ts';
export * from './held.ts';

export * from './ledger.ts';
export * from './lots.ts';
export * from './figures.ts';
export * from './goods.ts';
export * from './buying.ts';
export * from './reorder.ts';
export * from './to-buy.ts';
export * from './from-here.ts';

export * from './fill-index.ts';
export * from './levers.ts';
export * from './threshold.ts';
export * from './cold.ts';
export * from './figures.ts';
export * from './known-cavity.ts';

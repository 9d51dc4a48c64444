export * from './mix-colour.ts';
export * from './coverage.ts';
export * from './head-heat.ts';
export * from './jar.ts';
export * from './jar-figures.ts';
export * from './colour-order.ts';
export * from './cups.ts';
export * from './figures.ts';

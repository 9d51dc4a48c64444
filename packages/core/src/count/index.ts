export * from './count-all.ts';
export * from './binomial.ts';
export * from './casts-for.ts';
export * from './individuals.ts';
export * from './stand-out.ts';
export * from './wilson.ts';
export * from './yield.ts';
export * from './p-chart.ts';

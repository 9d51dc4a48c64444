export * from './binomial.ts';
export * from './individuals.ts';

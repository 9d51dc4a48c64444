export * from './lead-balance.ts';

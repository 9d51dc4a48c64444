export * from './freeze.ts';
export * from './handling.ts';
export * from './figures.ts';

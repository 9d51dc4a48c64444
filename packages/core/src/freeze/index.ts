export * from './freeze.ts';
export * from './settled.ts';
export * from './handling.ts';
export * from './figures.ts';

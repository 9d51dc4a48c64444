export * from './freeze.ts';
export * from './opening.ts';
export * from './settled.ts';
export * from './handling.ts';
export * from './figures.ts';
export * from './hook-heat.ts';

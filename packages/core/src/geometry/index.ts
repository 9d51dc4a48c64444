export * from './segments.ts';
export * from './styles.ts';
export * from './solid.ts';
export * from './hook.ts';
export * from './sprue.ts';

export * from './amounts.ts';
export * from './checks.ts';
export * from './mix.ts';
export * from './glues.ts';
export * from './templates.ts';
export * from './labels.ts';

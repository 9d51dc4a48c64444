export * from './schema/workshop.ts';
export * from './schema/records.ts';
export * from './schema/runs.ts';
export * from './schema/compute/index.ts';
export * from './parse.ts';
export * from './problem.ts';
export * from './resources.ts';
export * from './views.ts';

export * from './schema/workshop.ts';
export * from './schema/runs.ts';
export * from './schema/compute.ts';
export * from './problem.ts';
export * from './resources.ts';
export * from './views.ts';

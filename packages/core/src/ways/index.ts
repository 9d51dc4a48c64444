export * from './rhythm.ts';
export * from './school.ts';
export * from './house.ts';
export * from './work.ts';
export * from './finish.ts';
export * from './pace.ts';
export * from './evenings.ts';

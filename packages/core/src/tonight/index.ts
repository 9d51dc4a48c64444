export * from './calendar.ts';
export * from './cast-model.ts';
export * from './casts.ts';
export * from './chance.ts';
export * from './evening.ts';
export * from './needs.ts';
export * from './schedule.ts';
export * from './tonight.ts';

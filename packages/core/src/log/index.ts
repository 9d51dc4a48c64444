export * from './log.ts';
export * from './in-turn.ts';

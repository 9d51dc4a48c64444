export * from './seat.ts';

export * from './cast-mass.ts';

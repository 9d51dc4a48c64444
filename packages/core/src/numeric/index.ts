export * from './least-squares.ts';
export * from './pchip.ts';
export * from './program.ts';
export * from './solver.ts';

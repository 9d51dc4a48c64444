export * from './least-squares.ts';
export * from './pchip.ts';

export * from './records.ts';
export * from './product.ts';
export * from './gun.ts';
export * from './shorts.ts';

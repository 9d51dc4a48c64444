export * from './records.ts';
export * from './product.ts';

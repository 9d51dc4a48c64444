export * from './ticket-product.ts';
export * from './waiting.ts';
export * from './next.ts';
export * from './oven.ts';
export * from './course.ts';
export * from './dips.ts';
export * from './mixes.ts';
export * from './order-came.ts';

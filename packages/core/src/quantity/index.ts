export * from './check.ts';
export * from './figure.ts';
export * from './recorded.ts';
export * from './format.ts';
export * from './parse.ts';
export * from './units.ts';
export * from './range.ts';
export * from './said.ts';

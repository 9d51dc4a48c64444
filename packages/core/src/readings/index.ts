export * from './block-codec.ts';
export * from './figures.ts';
export * from './heat-ups.ts';
export * from './import-log.ts';
export * from './line-protocol.ts';
export * from './scale.ts';

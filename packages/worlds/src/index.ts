// Things as they may really be, for tests and the demo. Nothing here knows the models that are tried on it.
export * from './chance.ts';
export * from './gun.ts';
export * from './lead.ts';
export * from './mold.ts';
export * from './oven.ts';
export * from './pot.ts';
export * from './scale.ts';

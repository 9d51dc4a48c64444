export * from './materials.ts';
export * from './alloy.ts';
export * from './enthalpy.ts';
export * from './figures.ts';
export * from './known-metal.ts';
export * from './wanted.ts';

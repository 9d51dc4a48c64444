// Before each test file: all properties start from the seed of this run (jest.config.mjs).
require('fast-check').configureGlobal({ seed: Number(process.env.SCHMELZ_SEED) });

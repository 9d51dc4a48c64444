// Before any test: what is made from the sources. The mutation tester changes them, and takes what was made before.
import { ensureAnswers } from './lib.mjs';

export default () => {
  if (!process.env.SCHMELZ_TESTS) ensureAnswers();
};

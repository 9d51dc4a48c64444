/** A worker of its own for each fit, so that stopping it is ending it. */
export const startFitWorker = () => new Worker(new URL('./fits.worker.ts', import.meta.url), { type: 'module' });

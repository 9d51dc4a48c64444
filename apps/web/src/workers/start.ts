/** A worker of its own for each fit, so that stopping it is ending it. */
export const startFitWorker = () => new Worker(new URL('./fits.worker.ts', import.meta.url), { type: 'module' });
/** Answers for an evening at once, and stays for the next question. */
export const startPlanner = () => new Worker(new URL('./planner.worker.ts', import.meta.url), { type: 'module' });
/** Looks for a better evening; stopping it is ending it. */
export const startRefiner = () => new Worker(new URL('./refine.worker.ts', import.meta.url), { type: 'module' });
/** Reckons what is short and where to buy it. */
export const startBuyer = () => new Worker(new URL('./buyer.worker.ts', import.meta.url), { type: 'module' });

import { parentPort } from 'node:worker_threads';
import { answerTo } from './services/compute.ts';
import { loadSolver } from './services/solver.ts';

/** The thread that calculates: it says when it can, is asked by name and answers in the order it was asked. */
void loadSolver().then(() => parentPort!.postMessage('ready'));
parentPort!.on('message', ({ id, name, body }: { id: number; name: string; body: unknown }) => {
  void loadSolver().then((solve) => parentPort!.postMessage(answerTo(id, name, body, solve)));
});

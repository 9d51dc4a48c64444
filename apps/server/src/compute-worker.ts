import { parentPort } from 'node:worker_threads';
import { answerTo } from './services/compute.ts';

/** The thread that calculates: it is asked by name and answers in the order it was asked. */
parentPort!.on('message', ({ id, name, body }: { id: number; name: string; body: unknown }) => {
  parentPort!.postMessage(answerTo(id, name, body));
});

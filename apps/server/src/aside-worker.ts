import { parentPort, workerData } from 'node:worker_threads';
import { jobHandlers } from './routes/job.ts';
import { wrongOf, type AsideAnswer, type AsideQuestion } from './services/aside.ts';
import { openReader } from './store/store.ts';

/** The thread that reads beside the taps: the routes' own handlers, over a store that is only read from. */
const { store, told } = await openReader((workerData as { folder: string }).folder);
const handlers = jobHandlers(store);

parentPort!.on('message', (sent: AsideQuestion | 'end') => {
  if (sent === 'end') return void store.close().finally(() => process.exit());
  const { id, key, asked, changes } = sent;
  const say = (answer: AsideAnswer) => parentPort!.postMessage(answer);
  told(changes);
  Promise.resolve(handlers[key](asked as never)).then(
    (answer) => say({ id, json: JSON.stringify(answer) }),
    (error: unknown) => say({ id, wrong: wrongOf(error) }),
  );
});

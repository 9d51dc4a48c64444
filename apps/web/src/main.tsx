import './design/index.css';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { ApiProblem } from './api/client.ts';
import { onLockedOut } from './api/delivery.ts';
import { onTaken, resumeOutboxes } from './api/outbox.ts';
import { refresh, refreshAfterTaps } from './api/queries.ts';
import { App } from './App.tsx';

const ASK_AGAIN_MS = 5000;
const mayComeBack = (error: Error | null) =>
  error !== null && (!(error instanceof ApiProblem) || error.problem.status >= 500 || error.problem.status === 429);

const client = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 2000,
      // A refusal stays one; a server that does not answer may come back.
      retry: (failures, error) => !(error instanceof ApiProblem) && failures < 3,
      // What could not be read is asked for again until the server is back.
      refetchInterval: ({ state }) => (mayComeBack(state.error) ? ASK_AGAIN_MS : false),
    },
  },
});

onLockedOut(() => void client.invalidateQueries({ queryKey: ['settings'] }));
onTaken((leftBehind) => void (leftBehind ? refresh(client) : refreshAfterTaps(client)));
void resumeOutboxes();

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <App />
    </QueryClientProvider>
  </StrictMode>,
);

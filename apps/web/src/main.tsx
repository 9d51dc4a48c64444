import './design/index.css';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import { ApiProblem } from './api/client.ts';
import { onTaken, resumeOutboxes } from './api/outbox.ts';
import { refreshAfterTaps } from './api/queries.ts';
import { router } from './router.tsx';

const client = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 2000,
      // A refusal stays one; a server that does not answer may come back.
      retry: (failures, error) => !(error instanceof ApiProblem) && failures < 3,
    },
  },
});

onTaken(() => void refreshAfterTaps(client));
void resumeOutboxes();

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  </StrictMode>,
);

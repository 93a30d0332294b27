import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'

import { Refusal } from './api/client'
import { App } from './app/App'
import { install } from './session/install'
import { asKept, persisterGc } from './session/kept'

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      // What passes (no answer, database away) is asked again; what is refused is not.
      retry: (_, error) => error instanceof Refusal && error.passing,
      retryDelay: 2000,
      staleTime: 5000,
      // Asked even without a network: the answer may be kept on this device.
      networkMode: 'offlineFirst',
      persister: asKept as never,
    },
    // Refused at once without a network, so that the page can say so and keep what was typed.
    mutations: { networkMode: 'always' },
  },
})

void install().catch(() => undefined)
void persisterGc().catch(() => undefined)

const root = document.getElementById('root')
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <App />
      </QueryClientProvider>
    </StrictMode>,
  )

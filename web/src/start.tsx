import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'

import { Refusal } from './api/client'
import { App } from './app/App'

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      // What passes (no answer, database away) is asked again; what is refused is not.
      retry: (count, error) => error instanceof Refusal && error.passing && count < 60,
      retryDelay: 2000,
      staleTime: 5000,
    },
  },
})

const root = document.getElementById('root')
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <App />
      </QueryClientProvider>
    </StrictMode>,
  )

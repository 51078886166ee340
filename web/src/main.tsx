import '@fontsource/ibm-plex-sans/latin-400.css'
import '@fontsource/ibm-plex-sans/latin-600.css'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
// First, so that what a feature says of its own stands above it.
import './app/base.css'
import './app/frame.css'
import './app/shared.css'
import { App } from './app/App'
import { LastGuard } from './app/Guard'
import { passNonceToStyles } from './app/nonce'

passNonceToStyles()

const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } },
})
const root = document.getElementById('root')
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <LastGuard>
          <App />
        </LastGuard>
      </QueryClientProvider>
    </StrictMode>,
  )
}

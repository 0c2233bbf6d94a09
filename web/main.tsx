import { QueryClientProvider } from '@tanstack/react-query'
import { setNonce } from 'get-nonce'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router'
import { queryClient } from './app/queryClient'
import { codeOf, router } from './app/routes'
import { applyTheme, savedTheme } from './app/theme'
import './app/styles.css'

// The dialogs' scroll lock writes one style element; the content security policy wants its nonce.
const nonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.content
if (nonce) setNonce(nonce)
applyTheme(savedTheme())

const root = document.getElementById('root')
if (root) {
  const draw = () =>
    createRoot(root).render(
      <StrictMode>
        <QueryClientProvider client={queryClient}>
          <RouterProvider router={router} />
        </QueryClientProvider>
      </StrictMode>,
    )
  // The frame of the page waits a moment for what belongs into it, and not for a slow line.
  void Promise.race([codeOf(location.pathname), new Promise((soon) => setTimeout(soon, 150))]).then(draw)
}

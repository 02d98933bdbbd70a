import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/atkinson-hyperlegible-mono'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { App } from '@/app/app'
import '@/app/theme.css'

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <App />
  </StrictMode>,
)

// the shell starts without a network from then on; what a server says is never kept by it
if (import.meta.env.PROD && 'serviceWorker' in navigator) void navigator.serviceWorker.register('/shell-worker.js').catch(() => undefined)

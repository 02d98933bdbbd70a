import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import type { Plugin } from 'vite'
import { defineConfig } from 'vitest/config'

/** Writes the worker that keeps the shell, with the list of everything that was built. */
const shellWorker = (): Plugin => ({
  name: 'shell-worker',
  generateBundle(_options, bundle) {
    const files = Object.keys(bundle).filter((name) => name.startsWith('assets/')).map((name) => `/${name}`)
    const source = readFileSync(new URL('./shell-worker.js', import.meta.url), 'utf-8').replace('__FILES__', JSON.stringify(['/favicon.svg', ...files.sort()]))
    this.emitFile({ type: 'asset', fileName: 'shell-worker.js', source })
  },
})

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  plugins: [react(), tailwindcss(), shellWorker()],
  server: { fs: { allow: ['.', '../docs'] }, host: '127.0.0.1', port: 5173, proxy: { '/api': 'http://127.0.0.1:8420' } },
  build: { outDir: 'dist', target: 'es2022', sourcemap: false, manifest: true },
  // a test does not time: on a busy machine a form is slow
  test: { environment: 'jsdom', globals: false, setupFiles: ['./src/test-setup.ts'], css: false, testTimeout: 30_000 },
})

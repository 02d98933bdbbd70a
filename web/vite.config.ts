import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  plugins: [react(), tailwindcss()],
  server: { host: '127.0.0.1', port: 5173, proxy: { '/api': 'http://127.0.0.1:8420' } },
  build: { outDir: 'dist', target: 'es2022', sourcemap: false, manifest: true },
  // a test does not time: on a busy machine a form is slow
  test: { environment: 'jsdom', globals: false, setupFiles: ['./src/test-setup.ts'], css: false, testTimeout: 30_000 },
})

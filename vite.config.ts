import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { chunksByPlace } from './scripts/chunks.ts'

const chunks = chunksByPlace()

export default defineConfig({
  root: 'web',
  plugins: [react(), tailwindcss(), ...chunks.plugins],
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    manifest: true,
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1200,
    target: 'es2022',
    rolldownOptions: { output: { codeSplitting: { groups: chunks.groups } } },
  },
})

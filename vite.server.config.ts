import { defineConfig } from 'vite'

export default defineConfig({
  build: {
    ssr: true,
    outDir: 'dist/server',
    emptyOutDir: true,
    target: 'node20',
    rollupOptions: {
      input: { http: 'server/http/main.ts', worker: 'server/jobs/main.ts', setup: 'server/demo/setup.ts' },
      output: { entryFileNames: '[name].js' },
    },
  },
})

import { defineConfig } from 'vite'

const PROGRAMS = {
  http: 'server/programs/http.ts',
  worker: 'server/programs/worker.ts',
  setup: 'server/programs/setup.ts',
  reader: 'server/programs/reader.ts',
  smallReader: 'server/programs/smallReader.ts',
  story: 'server/programs/story.ts',
}

/** The programs that Node.js runs; `--mode bench` builds the measurements instead. */
export default defineConfig(({ mode }) => ({
  build: {
    ssr: true,
    outDir: mode === 'bench' ? 'dist/bench' : 'dist/server',
    emptyOutDir: true,
    target: 'node20',
    rollupOptions: {
      input: mode === 'bench' ? { bench: 'tests/bench/main.ts' } : PROGRAMS,
      output: { entryFileNames: '[name].js' },
    },
  },
}))

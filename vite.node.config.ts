/** What runs in Node beside the server: the code of its threads and the `hekto` command, into `build`. */
import { defineConfig } from 'vite';

export default defineConfig({
  publicDir: false,
  build: {
    ssr: true,
    outDir: 'build',
    // The server is there already.
    emptyOutDir: false,
    target: 'node20',
    rollupOptions: {
      input: { 'threads/work': 'src/lib/server/work.ts', 'cli/main': 'cli/main.ts' },
      output: { entryFileNames: '[name].js', chunkFileNames: 'shared/[name]-[hash].js', format: 'es' },
      external: ['highs'],
    },
  },
  ssr: { noExternal: true, external: ['highs'] },
});

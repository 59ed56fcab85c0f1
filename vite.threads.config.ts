/** The code of the server's threads, into `build/threads` beside the server. */
import { defineConfig } from 'vite';

export default defineConfig({
  publicDir: false,
  build: {
    ssr: 'src/lib/server/work.ts',
    outDir: 'build/threads',
    emptyOutDir: true,
    target: 'node20',
    rollupOptions: { output: { entryFileNames: 'work.js', format: 'es' } },
  },
  ssr: { noExternal: true },
});

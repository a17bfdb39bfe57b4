import { defineConfig } from 'vite';

/** The thread that reasons, as one file beside the server. */
export default defineConfig({
  ssr: { noExternal: true },
  build: {
    ssr: 'src/lib/server/reasoning/thread.ts',
    outDir: 'build/reasoning',
    emptyOutDir: true,
    copyPublicDir: false,
  },
});

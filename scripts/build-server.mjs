// Bundles server, kernel threads and command line into dist-server, once, so that none of them is compiled at each start.
import { build } from 'vite';
import { root } from './setup.mjs';

await build({
  root,
  configFile: false,
  logLevel: 'warn',
  publicDir: false,
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist-server',
    emptyOutDir: true,
    minify: false,
    sourcemap: true,
    rollupOptions: {
      input: {
        server: 'server/main.ts',
        worker: 'server/solids/worker.ts',
        cli: 'cli/main.ts',
        backup: 'server/backup-main.ts',
        fill: 'demo/fill.ts',
        bench: 'testing/bench-server.ts',
      },
      output: { entryFileNames: '[name].mjs', chunkFileNames: 'chunks/[name]-[hash].mjs', format: 'es' },
    },
  },
});

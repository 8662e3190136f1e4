import { fileURLToPath } from 'node:url';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';
import { broughtAlong } from './scripts/licences.ts';

/** `virtual:licences`: what the page and the server are made of, read from the packages as they are installed. */
const licences: Plugin = {
  name: 'licences',
  resolveId: id => (id === 'virtual:licences' ? '\0licences' : undefined),
  load: id =>
    id === '\0licences'
      ? `export default ${JSON.stringify(broughtAlong(fileURLToPath(new URL('.', import.meta.url))))}`
      : undefined,
};

export default defineConfig({
  root: 'web',
  plugins: [react(), licences],
  build: { outDir: '../dist', emptyOutDir: true, target: 'es2022', chunkSizeWarningLimit: 2000 },
  worker: { format: 'es' },
  optimizeDeps: { exclude: ['replicad-opencascadejs', 'manifold-3d'] },
  server: {
    port: 4317,
    proxy: { '/api': { target: `http://127.0.0.1:${process.env.SAGOMA_PORT ?? 4318}` } },
  },
});

import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  root: 'web',
  plugins: [react()],
  build: { outDir: '../dist', emptyOutDir: true, target: 'es2022', chunkSizeWarningLimit: 2000 },
  worker: { format: 'es' },
  optimizeDeps: { exclude: ['replicad-opencascadejs', 'manifold-3d'] },
  server: {
    port: 4317,
    proxy: { '/api': { target: `http://127.0.0.1:${process.env.SAGOMA_PORT ?? 4318}` } },
  },
});

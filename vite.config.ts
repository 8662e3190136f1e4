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

/**
 * js-aruco2 hangs what it exports on `this` and asks for its own files by `require`: to a bundler it is a module that
 * exports nothing. Node takes it as it is.
 */
const oldModules: Plugin = {
  name: 'old-modules',
  transform(code, id) {
    if (!/\/js-aruco2\/src\/.*\.js$/.test(id)) return null;
    const asked = [...new Set([...code.matchAll(/require\('([^']+)'\)/g)].map(m => m[1]!))];
    const imports = asked.map((path, i) => `import asked${i} from '${path}.js';`);
    const answers = asked.map((path, i) => `'${path}': asked${i}`).join(', ');
    return {
      code: `${imports.join('\n')}
const own = {};
(function (require) {
${code}
}).call(own, path => ({ ${answers} })[path]);
export default own;`,
      map: null,
    };
  },
};

export default defineConfig({
  root: 'web',
  plugins: [react(), licences, oldModules],
  build: { outDir: '../dist', emptyOutDir: true, target: 'es2022', chunkSizeWarningLimit: 2000 },
  worker: { format: 'es', plugins: () => [oldModules] },
  optimizeDeps: { exclude: ['replicad-opencascadejs', 'manifold-3d', 'js-aruco2'] },
  server: {
    port: 4317,
    proxy: { '/api': { target: `http://127.0.0.1:${process.env.SAGOMA_PORT ?? 4318}` } },
  },
});

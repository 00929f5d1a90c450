import { resolve } from 'node:path';
import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import { usedOfElement } from './scripts/usedOfElement';

const isolation = {
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Embedder-Policy': 'require-corp',
};

export default defineConfig({
  root: 'web',
  plugins: [vue()],
  // Its module build has no default export, and Node takes the other.
  resolve: { alias: { 'opentype.js': resolve(import.meta.dirname, 'node_modules/opentype.js/dist/opentype.js') } },
  css: { postcss: { plugins: [usedOfElement()] } },
  worker: { format: 'es' },
  build: {
    outDir: resolve(import.meta.dirname, 'dist'),
    emptyOutDir: true,
    target: 'es2022',
    chunkSizeWarningLimit: 2400,
  },
  server: {
    headers: isolation,
    proxy: { '/api': { target: `http://127.0.0.1:${process.env['PORT'] ?? 4870}`, changeOrigin: true } },
  },
});

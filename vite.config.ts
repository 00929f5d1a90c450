import { resolve } from 'node:path';
import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';
import { packageList } from './scripts/packageList';
import { usedOfElement } from './scripts/usedOfElement';

const isolation = {
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Embedder-Policy': 'require-corp',
};

/** What cuts pictures is one large script. */
const LARGEST_FILE = 16 * 2 ** 20;

export default defineConfig({
  root: 'web',
  plugins: [
    vue(),
    packageList(),
    VitePWA({
      registerType: 'prompt',
      injectRegister: null,
      manifest: {
        name: 'Mold Stamp',
        short_name: 'Mold Stamp',
        description: 'Capture height alphas from sculpted forms and keep them as reusable sculpting brushes.',
        start_url: '/',
        display: 'standalone',
        background_color: '#f3f1ed',
        theme_color: '#f3f1ed',
        icons: [
          { src: 'mark.svg', sizes: 'any', type: 'image/svg+xml' },
          { src: 'mark-192.png', sizes: '192x192', type: 'image/png' },
          { src: 'mark-512.png', sizes: '512x512', type: 'image/png', purpose: 'any maskable' },
        ],
      },
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,png,woff2,wasm,ttf}'],
        maximumFileSizeToCacheInBytes: LARGEST_FILE,
        navigateFallback: 'index.html',
        navigateFallbackDenylist: [/^\/api\//],
      },
    }),
  ],
  // Its module build has no default export, and Node takes the other.
  resolve: { alias: { 'opentype.js': resolve(import.meta.dirname, 'node_modules/opentype.js/dist/opentype.js') } },
  css: { postcss: { plugins: [usedOfElement()] } },
  worker: { format: 'es' },
  build: {
    outDir: resolve(import.meta.dirname, 'dist'),
    emptyOutDir: true,
    target: 'es2022',
  },
  server: {
    headers: isolation,
    proxy: { '/api': { target: `http://127.0.0.1:${process.env['PORT'] ?? 4870}`, changeOrigin: true } },
  },
});

import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';

/** Where the server answers whose page this is in development. */
const ADDRESS = process.env['JINX_ADDRESS'] ?? 'http://localhost:7411';

export default defineConfig({
  plugins: [vue()],
  server: {
    // As the server sends them (server/app.ts): memory is shared between threads only with them.
    headers: { 'Cross-Origin-Opener-Policy': 'same-origin', 'Cross-Origin-Embedder-Policy': 'require-corp' },
    proxy: { '/api': { target: ADDRESS, ws: true } },
  },
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 2000,
    assetsInlineLimit: 0,
    // The server says by it what each page needs (server/application.ts).
    manifest: true,
    // Pictures and films without a window have a page of their own.
    rollupOptions: { input: ['index.html', 'film.html'].map((page) => `${import.meta.dirname}/${page}`) },
  },
});

import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const SERVER = 'http://127.0.0.1:4600';

export default defineConfig({
  root: 'web',
  plugins: [react(), tailwindcss()],
  // Nothing inlined: the content security policy takes fonts from files only.
  build: { outDir: '../dist/web', emptyOutDir: true, assetsInlineLimit: 0, chunkSizeWarningLimit: 900 },
  // `npm run dev` beside it; the server answers only to its own name.
  server: {
    proxy: Object.fromEntries(
      ['/api', '/data'].map((path) => [
        path,
        { target: SERVER, changeOrigin: true, headers: { origin: SERVER } },
      ]),
    ),
  },
});

import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  root: 'web',
  plugins: [react(), tailwindcss()],
  // Nothing inlined: the content security policy takes fonts from files only.
  build: { outDir: '../dist/web', emptyOutDir: true, assetsInlineLimit: 0, chunkSizeWarningLimit: 700 },
  server: { proxy: { '/api': 'http://127.0.0.1:4600', '/data': 'http://127.0.0.1:4600' } },
});

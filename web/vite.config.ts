import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  server: { proxy: { '/api': 'http://127.0.0.1:8077' } },
  build: {
    outDir: '../src/idle_selvage/web_dist',
    emptyOutDir: true,
    target: 'es2022',
    license: { fileName: 'licences.md' },
  },
});

import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

const SERVER = 'http://127.0.0.1:8077';

/** While developing, the page is not served by the server: the word by which it knows its pages is asked for. */
const word: Plugin = {
  name: 'page-word',
  apply: 'serve',
  transformIndexHtml: {
    order: 'pre',
    async handler(html) {
      const served = await (await fetch(SERVER)).text();
      return html.replace('__WORD__', /name="page-word" content="([^"]*)"/.exec(served)?.[1] ?? '');
    },
  },
};

export default defineConfig({
  plugins: [react(), word],
  server: { proxy: { '/api': SERVER } },
  build: {
    outDir: '../src/idle_selvage/web_dist',
    emptyOutDir: true,
    target: 'es2022',
    license: { fileName: 'licences.md' },
  },
});

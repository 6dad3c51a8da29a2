import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

/** The page waits for its language only; all else is on its way with it. */
const pagesAtOnce = (): Plugin => ({
  name: 'pages-at-once',
  transformIndexHtml: {
    order: 'post',
    handler: (html, { bundle = {} }) => {
      const wanted = new Set<string>();
      const want = (file: string): void => {
        const chunk = bundle[file];
        if (wanted.has(file) || chunk?.type !== 'chunk') return;
        wanted.add(file);
        chunk.imports.forEach(want);
      };
      for (const chunk of Object.values(bundle))
        if (chunk.type === 'chunk' && chunk.facadeModuleId?.endsWith('/app/start.tsx') === true)
          want(chunk.fileName);
      return [...wanted]
        .filter((file) => !html.includes(file))
        .map((file) => ({
          tag: 'link',
          attrs: { rel: 'modulepreload', crossorigin: true, href: `/${file}` },
          injectTo: 'head' as const,
        }));
    },
  },
});

export default defineConfig({
  plugins: [react(), tailwindcss(), pagesAtOnce()],
  build: { target: 'es2022', assetsInlineLimit: 0, sourcemap: false, chunkSizeWarningLimit: 700 },
  server: { proxy: { '/api': 'http://127.0.0.1:4310' } },
});

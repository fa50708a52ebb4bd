import node from '@astrojs/node';
import react from '@astrojs/react';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'astro/config';
import { symbolFonts } from './bin/symbolFonts';

export default defineConfig({
  output: 'server',
  // Middleware mode: our own start script takes the data lock first and owns the listening socket.
  adapter: node({ mode: 'middleware' }),
  integrations: [react()],
  devToolbar: { enabled: false },
  server: { host: '127.0.0.1' },
  // Our own guard (src/server/http/guard.ts) checks every write, also those of programs that send CSV.
  security: { checkOrigin: false },
  experimental: {
    csp: {
      directives: [
        "default-src 'self'",
        "img-src 'self' data: blob:",
        "font-src 'self'",
        "connect-src 'self'",
        "worker-src 'self' blob:",
        "object-src 'none'",
        "base-uri 'self'",
        "form-action 'self'",
      ],
    },
  },
  vite: {
    plugins: [symbolFonts(), tailwindcss()],
    worker: { format: 'es' },
    build: {
      // Nothing is inlined as a data address: the content policy wants fonts from our own origin.
      assetsInlineLimit: 0,
      // What is small goes along with what is loaded anyway: by itself a page is made of a hundred files.
      rollupOptions: { output: { experimentalMinChunkSize: 20_000 } },
    },
    ssr: {
      external: ['@electric-sql/pglite', 'sharp', 'pdfkit', 'fontkit'],
      // Of three hundred files, which would be read one by one before the first page.
      noExternal: ['culori'],
    },
  },
});

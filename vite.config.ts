import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  root: 'web',
  plugins: [react()],
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    manifest: true,
    target: 'es2023',
    chunkSizeWarningLimit: 2000,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            // What starts the figures worker: it must not wait for all else to come and be evaluated.
            { name: 'first', test: /workers\/figures-worker\.ts|node_modules\/comlink|preload-helper/, priority: 2 },
            { name: 'shared', minShareCount: 2 },
          ],
        },
      },
    },
  },
  worker: { format: 'es' },
  server: { proxy: { '/api': 'http://127.0.0.1:5180', '/live': { target: 'ws://127.0.0.1:5180', ws: true } } },
});

import react from '@vitejs/plugin-react';
import { constants } from 'node:zlib';
import { defineConfig } from 'vite';
import { compression, defineAlgorithm } from 'vite-plugin-compression2';
import { licences } from './launch/licences-plugin.ts';

/** Licences stand in a file of their own. */
const withoutLicences = { legal: false };

export default defineConfig({
  root: 'web',
  plugins: [
    react(),
    licences('licences.txt'),
    // Stored beside each file, for those who fetch it from another machine.
    compression({
      algorithms: [defineAlgorithm('brotliCompress', { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } }), 'gzip'],
      threshold: 1000,
    }),
  ],
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    manifest: true,
    target: 'es2023',
    chunkSizeWarningLimit: 2000,
    rolldownOptions: {
      output: {
        comments: withoutLicences,
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
  worker: {
    format: 'es',
    plugins: () => [licences('licences-of-the-worker.txt')],
    rolldownOptions: { output: { comments: withoutLicences } },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:5180', '/live': { target: 'ws://127.0.0.1:5180', ws: true } } },
});

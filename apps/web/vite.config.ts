import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  worker: { format: 'es' },
  build: { target: 'es2022', chunkSizeWarningLimit: 700, sourcemap: false },
  server: { port: 4311, proxy: { '/api': 'http://127.0.0.1:4310' } },
  optimizeDeps: { include: ['comlink', 'immer', 'zod', 'clipper2-ts', 'date-fns', 'apexcharts', 'react-apexcharts'] },
});

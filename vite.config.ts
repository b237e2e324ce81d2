import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { delivery } from './scripts/delivery';
import { engineMark } from './scripts/engine';

export default defineConfig({
  plugins: [react(), delivery()],
  define: { ENGINE_MARK: JSON.stringify(engineMark()) },
  worker: { format: 'es' },
  // Fonts and pictures stay files: the server's policy allows no data: fonts.
  build: { target: 'es2023', sourcemap: false, assetsInlineLimit: 0 },
  server: { host: '127.0.0.1' },
});

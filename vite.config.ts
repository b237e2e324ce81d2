import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';
import { delivery } from './scripts/delivery';
import { engineMark } from './scripts/engine';
import { licenceTexts } from './scripts/licences';

/** The application is there when the network and its server are gone, and can be installed. A new version waits until it is asked for. */
const offline = VitePWA({
  registerType: 'prompt',
  injectRegister: null,
  includeAssets: ['lantern.svg'],
  manifest: {
    name: 'Hollow Lantern',
    short_name: 'Lantern',
    description: 'Preset, scene and snapshot changes on their beat, proven before the show.',
    start_url: '/',
    display: 'standalone',
    background_color: '#e9eeea',
    theme_color: '#13262d',
    icons: [
      { src: '/lantern-192.png', sizes: '192x192', type: 'image/png', purpose: 'any' },
      { src: '/lantern-512.png', sizes: '512x512', type: 'image/png', purpose: 'any' },
      { src: '/lantern-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
      { src: '/lantern.svg', sizes: 'any', type: 'image/svg+xml' },
    ],
  },
  workbox: {
    globPatterns: ['**/*.{js,css,html,svg,png,woff,woff2}'],
    // Fonts of other scripts are large, and paper alone needs them: they are kept from their first use on.
    globIgnores: ['**/noto-*.woff', '**/ibm-plex-sans-{jp,kr,arabic,hebrew,devanagari}-*.woff'],
    maximumFileSizeToCacheInBytes: 8 * 1024 * 1024,
    // Any address of the application is a view of its page; what is shared with screens elsewhere is the server's.
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/share/, /^\/licences/],
    cleanupOutdatedCaches: true,
    // The voice is large, and few need it: it is kept from its first use on.
    runtimeCaching: [
      {
        urlPattern: /\/assets\/.*\.wasm$/,
        handler: 'CacheFirst',
        options: { cacheName: 'voice', expiration: { maxEntries: 2 } },
      },
      {
        urlPattern: /\/assets\/.*\.woff$/,
        handler: 'CacheFirst',
        options: { cacheName: 'fonts', expiration: { maxEntries: 400 } },
      },
    ],
  },
});

export default defineConfig({
  plugins: [react(), licenceTexts(import.meta.dirname), delivery(), offline],
  define: { ENGINE_MARK: JSON.stringify(engineMark()) },
  worker: { format: 'es' },
  // Fonts and pictures stay files: the server's policy allows no data: fonts.
  build: {
    target: 'es2023',
    sourcemap: false,
    assetsInlineLimit: 0,
    rolldownOptions: { checks: { pluginTimings: false } },
  },
  server: { host: '127.0.0.1' },
});

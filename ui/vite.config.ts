import react from '@vitejs/plugin-react'
import { VitePWA } from 'vite-plugin-pwa'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [react(), VitePWA({
    strategies: 'injectManifest', srcDir: 'src', filename: 'sw.ts', injectRegister: null,
    injectManifest: { globPatterns: ['**/*.{js,css,html,woff2,svg}'], maximumFileSizeToCacheInBytes: 4_000_000 },
    manifest: { name: 'Frugal Heron', short_name: 'Heron', start_url: '/', display: 'standalone',
      description: 'The record of a collection of old computers', background_color: '#f7f5f0', theme_color: '#2f5d73',
      icons: [{ src: '/heron.svg', sizes: 'any', type: 'image/svg+xml' }] },
  })],
  // The server puts each request's nonce in place of the mark.
  html: { cspNonce: '__CSP_NONCE__' },
  build: {
    outDir: '../web/static/dist',
    emptyOutDir: true,
    // Inlined files would need a looser content security policy.
    assetsInlineLimit: 0,
  },
  // Tests of components ask for a document of their own: // @vitest-environment jsdom
  test: { setupFiles: ['src/testing/setup.ts'], restoreMocks: true, testTimeout: 60_000,
    // What the tests share is emptied after each; loading it anew for every file took six times as long.
    isolate: false, maxWorkers: 2 },
  server: { proxy: { '/api': 'http://127.0.0.1:8080' } },
})

import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [react()],
  // The server puts each request's nonce in place of the mark.
  html: { cspNonce: '__CSP_NONCE__' },
  build: {
    outDir: '../web/static/dist',
    emptyOutDir: true,
    // Inlined files would need a looser content security policy.
    assetsInlineLimit: 0,
  },
  // Tests of components ask for a document of their own: // @vitest-environment jsdom
  test: { setupFiles: ['src/testing/setup.ts'], restoreMocks: true, testTimeout: 60_000 },
  server: { proxy: { '/api': 'http://127.0.0.1:8080' } },
})

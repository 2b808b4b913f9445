import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

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
  server: { proxy: { '/api': 'http://127.0.0.1:8080' } },
})

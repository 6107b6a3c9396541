import { resolve } from 'node:path'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { compression } from 'vite-plugin-compression2'

export default defineConfig({
  root: 'web',
  plugins: [
    react(),
    tailwindcss(),
    // Packed once, here, for the server to send: not anew for each who asks.
    compression({ algorithms: ['gzip', 'brotliCompress'], include: /\.(js|css|svg)$/, threshold: 1000 }),
  ],
  build: {
    outDir: resolve(import.meta.dirname, '.build/web'),
    emptyOutDir: true,
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 800,
  },
  server: { proxy: { '/api': 'http://localhost:4700' } },
})

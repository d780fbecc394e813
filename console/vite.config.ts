import { fileURLToPath, URL } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'

const service = process.env.SANDPIPER_SERVER ?? 'http://127.0.0.1:8080'

export default defineConfig({
  plugins: [vue()],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  server: { proxy: { '/manage': service, '/api': service } },
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 1600,
  },
})

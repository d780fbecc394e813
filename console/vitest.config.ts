import { fileURLToPath, URL } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [vue()],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  // Components load once and late on a machine that is busy: a test is stopped when it hangs, not when it is slow.
  test: {
    include: ['src/**/*.test.ts'],
    testTimeout: 30_000,
    environment: 'happy-dom',
    isolate: false,
    setupFiles: ['src/testing/fresh.ts'],
  },
})

import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

const alias = { '~': fileURLToPath(new URL('./app', import.meta.url)) }

export default defineConfig({
  resolve: { alias },
  test: {
    projects: [
      {
        resolve: { alias },
        plugins: [vue()],
        test: { name: 'components', include: ['tests/components/**/*.test.ts'], environment: 'happy-dom' },
      },
      { resolve: { alias }, test: { name: 'unit', include: ['tests/unit/**/*.test.ts'], testTimeout: 60_000 } },
      {
        resolve: { alias },
        test: { name: 'reference', include: ['tests/reference/**/*.test.ts'], testTimeout: 60_000 },
      },
      {
        resolve: { alias },
        test: {
          name: 'integration',
          include: ['tests/integration/**/*.test.ts'],
          testTimeout: 90_000,
          hookTimeout: 90_000,
          globalSetup: 'tests/integration/global-setup.ts',
        },
      },
    ],
  },
})

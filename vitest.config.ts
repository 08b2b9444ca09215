import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

const alias = { '~': fileURLToPath(new URL('./app', import.meta.url)) }

// what tests read alone is read once for all of them: nothing in core, shared or server keeps what a test could change
export default defineConfig({
  resolve: { alias },
  test: {
    projects: [
      {
        resolve: { alias },
        plugins: [vue()],
        test: { name: 'components', include: ['tests/components/**/*.test.ts'], environment: 'happy-dom' },
      },
      {
        resolve: { alias },
        test: { name: 'unit', include: ['tests/unit/**/*.test.ts'], testTimeout: 60_000, isolate: false },
      },
      {
        resolve: { alias },
        test: { name: 'reference', include: ['tests/reference/**/*.test.ts'], testTimeout: 60_000, isolate: false },
      },
      {
        resolve: { alias },
        test: {
          name: 'integration',
          include: ['tests/integration/**/*.test.ts'],
          isolate: false,
          testTimeout: 90_000,
          hookTimeout: 90_000,
          globalSetup: 'tests/integration/global-setup.ts',
        },
      },
    ],
  },
})

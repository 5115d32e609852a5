import { defineConfig } from 'vitest/config'

// Pure TypeScript alone, without a browser: screens are tested in one, in e2e/.
export default defineConfig({ test: { include: ['src/**/tests/*.test.ts'], environment: 'node' } })

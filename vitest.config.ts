import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    include: ['src/**/*.test.ts', 'scripts/**/*.test.ts'],
    setupFiles: ['./test/properties.ts'],
    // No module keeps state, so files need no process of their own. The limit is patience, no measure of speed.
    isolate: false,
    maxWorkers: Math.max(2, availableParallelism() - 1),
    testTimeout: 120_000,
  },
});

import { defineConfig } from 'vitest/config';
import { fileURLToPath } from 'node:url';

const source = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  resolve: {
    alias: [
      { find: /^@nestplank\/core$/, replacement: source('packages/core/src/index.ts') },
      { find: /^@nestplank\/core\/formats$/, replacement: source('packages/core/src/formats/index.ts') },
      { find: /^@nestplank\/core\/export$/, replacement: source('packages/core/src/formats/export.ts') },
      { find: /^@nestplank\/core\/exchange$/, replacement: source('packages/core/src/formats/exchange.ts') },
      { find: /^@nestplank\/core\/practice$/, replacement: source('packages/core/src/practice/index.ts') },
      { find: /^@nestplank\/core\/cutting$/, replacement: source('packages/core/src/cutting/index.ts') },
      { find: /^@nestplank\/contract$/, replacement: source('packages/contract/src/index.ts') },
    ],
  },
  test: {
    // two cores are what the whole check is meant for; one of them left idle doubles its time
    maxWorkers: 2,
    testTimeout: 180_000,
    hookTimeout: 180_000,
    projects: [
      {
        extends: true,
        test: {
          name: 'core',
          include: ['packages/*/src/**/*.test.ts'],
          // nothing of the core remembers what would be another answer: its modules are loaded once, not for each file
          isolate: false,
        },
      },
      {
        extends: true,
        // a server of its own and a folder of its own for each file: their modules, too, are loaded once
        test: {
          name: 'machines',
          include: ['apps/server/src/**/*.test.ts', 'apps/cli/src/**/*.test.ts'],
          isolate: false,
        },
      },
      {
        extends: true,
        // what stands in for a module, and the page, are each file's own
        test: { name: 'pages', include: ['apps/web/src/**/*.test.ts', 'apps/web/src/**/*.test.tsx'] },
      },
    ],
  },
});

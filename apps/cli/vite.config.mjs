import { defineConfig } from 'vite';

/** The command line as few files: loading hundreds of modules one by one takes longer than what most commands do. */
export default defineConfig({
  logLevel: 'warn',
  build: {
    ssr: 'src/main.ts',
    outDir: 'dist/bundle',
    emptyOutDir: true,
    target: 'node20',
    minify: false,
  },
  ssr: {
    noExternal: true,
    // brings WebAssembly of its own, which it looks for beside itself; writers are loaded only when one is asked for
    external: ['highs', 'pdf-lib', '@pdf-lib/fontkit', 'makerjs'],
  },
});

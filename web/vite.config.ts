import { svelte } from '@sveltejs/vite-plugin-svelte';
import { svelteTesting } from '@testing-library/svelte/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [tailwindcss(), svelte(), svelteTesting()],
  build: {
    target: 'es2022',
    assetsInlineLimit: 0,
    rollupOptions: {
      // The service worker stands at the root, under a name that stays.
      input: { main: 'index.html', sw: 'src/app/sw.ts' },
      output: { entryFileNames: (chunk) => (chunk.name === 'sw' ? 'sw.js' : 'assets/[name]-[hash].js') },
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8080', '/v3': 'http://127.0.0.1:8080' } },
  // A component under test answers in parts of a second; a busy machine is given time for it.
  test: {
    pool: 'threads',
    include: ['src/**/*.test.ts'],
    setupFiles: ['src/testing/setup.ts'],
    testTimeout: 30_000,
    coverage: {
      include: ['src/**/*.{ts,svelte}'],
      exclude: ['src/api/generated/**', 'src/testing/**', 'src/**/*.test.ts'],
      reporter: ['text', 'html'],
    },
  },
});

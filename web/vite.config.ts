import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [tailwindcss(), svelte()],
  build: { target: 'es2022', assetsInlineLimit: 0 },
  server: { proxy: { '/api': 'http://127.0.0.1:8080', '/v3': 'http://127.0.0.1:8080' } },
  test: { include: ['src/**/*.test.ts'] },
});

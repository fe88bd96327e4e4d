import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import components from 'unplugin-vue-components/vite'
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers'
import { VitePWA } from 'vite-plugin-pwa'
import { defineConfig } from 'vitest/config'

/** What makes it one that can be installed and opens without signal: its own files only, never an answer of the server. */
const pwa = VitePWA({
  registerType: 'prompt',
  injectRegister: null,
  manifest: {
    name: 'Gorvant',
    short_name: 'Gorvant',
    description:
      'The low-voltage sequence of heat pumps: what should be live, what is, what to measure next.',
    id: '/',
    start_url: '/',
    scope: '/',
    display: 'standalone',
    background_color: '#f6f4ee',
    theme_color: '#17212b',
    icons: [
      { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
      { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
      { src: '/icon-maskable-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
    ],
  },
  workbox: {
    globPatterns: ['**/*.{js,css,html,svg,png,woff2}'],
    globIgnores: ['engine/**'],
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/(api|health|metrics|engine)\b/],
    cleanupOutdatedCaches: true,
    inlineWorkboxRuntime: true,
    sourcemap: false,
  },
})

export default defineConfig({
  root: 'web',
  plugins: [vue(), components({ dirs: [], dts: false, resolvers: [ElementPlusResolver()] }), pwa],
  resolve: { alias: { '@': fileURLToPath(new URL('./web/src', import.meta.url)) } }, // a path may have a space
  // Of the words' library only what is used: no older way to call it, no tools of its makers.
  define: { __VUE_I18N_LEGACY_API__: false, __INTLIFY_PROD_DEVTOOLS__: false },
  worker: { format: 'es' },
  build: { outDir: 'dist', emptyOutDir: true, target: 'es2022' },
  test: {
    setupFiles: ['tests/setup.ts'],
    server: { deps: { inline: ['element-plus'] } }, // it brings its styles with it
    testTimeout: 60_000, // nothing here is about time: a busy machine takes its own
  },
  server: {
    port: 9500,
    strictPort: false,
    proxy: { '/api': `http://127.0.0.1:${process.env.PORT ?? 9400}` },
  },
})

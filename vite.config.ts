import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import components from 'unplugin-vue-components/vite'
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  root: 'web',
  plugins: [vue(), components({ dirs: [], dts: false, resolvers: [ElementPlusResolver()] })],
  resolve: { alias: { '@': fileURLToPath(new URL('./web/src', import.meta.url)) } }, // a path may have a space
  build: { outDir: 'dist', emptyOutDir: true, target: 'es2022' },
  test: { server: { deps: { inline: ['element-plus'] } } }, // it brings its styles with it
  server: {
    port: 9500,
    strictPort: false,
    proxy: { '/api': `http://127.0.0.1:${process.env.PORT ?? 9400}` },
  },
})

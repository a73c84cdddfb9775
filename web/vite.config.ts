import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import AutoImport from 'unplugin-auto-import/vite'
import Components from 'unplugin-vue-components/vite'
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [
    vue(),
    AutoImport({ resolvers: [ElementPlusResolver()], dts: 'auto-imports.d.ts' }),
    Components({ dirs: [], resolvers: [ElementPlusResolver()], dts: 'components.d.ts' }),
  ],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  build: { outDir: '../src/bluekettle/static', emptyOutDir: true, chunkSizeWarningLimit: 700 },
  server: { proxy: { '/api': 'http://127.0.0.1:8740' } },
  test: {
    setupFiles: ['src/__tests__/away.ts'],
    environment: 'happy-dom',
    environmentOptions: { happyDOM: { url: 'http://kettle.test/' } },
    server: { deps: { inline: ['element-plus'] } },
  },
})

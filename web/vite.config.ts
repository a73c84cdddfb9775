import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import AutoImport from 'unplugin-auto-import/vite'
import Components from 'unplugin-vue-components/vite'
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers'
import { VitePWA } from 'vite-plugin-pwa'
import { defineConfig } from 'vitest/config'

const api = createHash('sha256').update(readFileSync('openapi.json')).digest('hex').slice(0, 12)

export default defineConfig({
  // What was kept of answers is of use to pages of the same answers only.
  define: { __API__: JSON.stringify(api) },
  plugins: [
    vue(),
    AutoImport({ resolvers: [ElementPlusResolver()], dts: 'auto-imports.d.ts' }),
    Components({ dirs: [], resolvers: [ElementPlusResolver()], dts: 'components.d.ts' }),
    // The page opens while the server is away. Pages come from the server where it answers, so that a
    // new version is there at once; the named files of a version never change.
    VitePWA({
      registerType: 'prompt',
      manifest: {
        name: 'Blue Kettle',
        short_name: 'Kettle',
        background_color: '#0e2238',
        theme_color: '#16324f',
        icons: [{ src: 'kettle.svg', sizes: 'any', type: 'image/svg+xml' }],
      },
      workbox: {
        globPatterns: ['index.html', 'kettle.svg', 'assets/**/*.{js,css,woff2}'],
        directoryIndex: null,
        navigateFallback: null,
        runtimeCaching: [
          {
            urlPattern: ({ request }) => request.mode === 'navigate',
            handler: 'NetworkOnly',
            options: { precacheFallback: { fallbackURL: 'index.html' } },
          },
        ],
      },
    }),
  ],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  build: { outDir: '../src/bluekettle/static', emptyOutDir: true, chunkSizeWarningLimit: 700 },
  server: { proxy: { '/api': 'http://127.0.0.1:8740' } },
  test: {
    setupFiles: ['src/__tests__/away.ts'],
    environment: 'happy-dom',
    testTimeout: 20_000, // a page is drawn whole, on a busy machine too
    environmentOptions: { happyDOM: { url: 'http://kettle.test/' } },
    server: { deps: { inline: ['element-plus'] } },
  },
})

import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { BootstrapVueNextResolver } from 'bootstrap-vue-next/resolvers'
import Icons from 'unplugin-icons/vite'
import Components from 'unplugin-vue-components/vite'
import { defineConfig } from 'vite'
import { compression, defineAlgorithm } from 'vite-plugin-compression2'
import { VitePWA } from 'vite-plugin-pwa'
import { apiPaths } from './apiPaths'

const server = `http://127.0.0.1:${process.env.UVANTA_PORT ?? 4870}`

export default defineConfig({
  root: fileURLToPath(new URL('.', import.meta.url)),
  plugins: [
    vue(),
    apiPaths(),
    Components({ dts: 'components.d.ts', dirs: [], resolvers: [BootstrapVueNextResolver()] }),
    Icons({ compiler: 'vue3' }),
    // Packed once, at its best, and not anew for everybody who asks.
    compression({
      include: /\.(js|css|svg|html)$/,
      threshold: 1_024,
      algorithms: [defineAlgorithm('gzip', { level: 9 }), 'brotliCompress'],
    }),
    VitePWA({
      // A new version is taken up between visits, never in the middle of one.
      registerType: 'prompt',
      injectRegister: false,
      strategies: 'injectManifest',
      srcDir: 'src',
      filename: 'sw.ts',
      manifest: {
        name: 'Uvanta',
        short_name: 'Uvanta',
        description: 'Service visits for gas and water equipment: measured, judged, signed.',
        theme_color: '#12325c',
        background_color: '#f6f3ea',
        display: 'standalone',
        start_url: '/',
        icons: [
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'any maskable' },
          { src: '/mark.svg', sizes: 'any', type: 'image/svg+xml' },
        ],
      },
      injectManifest: {
        buildPlugins: { vite: [apiPaths()] },
        globPatterns: ['**/*.{js,css,html,svg,woff2,png}'],
        maximumFileSizeToCacheInBytes: 4_000_000,
      },
    }),
  ],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  server: { host: '127.0.0.1', port: 5173, proxy: { '/api': server, '/.well-known': server } },
  optimizeDeps: { include: ['bootstrap-vue-next/components/*', 'bootstrap-vue-next/directives/*'] },
  build: {
    target: 'es2022',
    sourcemap: false,
    // By it the server names what a place needs (server/http/placePage.ts).
    manifest: true,
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    // On a slow line thirty small files take longer than the same in one: what is needed together comes together.
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            {
              name: 'first',
              test: /src\/(main|stores\/library|views\/today\/TodayView)\.|\/contract\/(words|limits|signInText)\.ts/,
              priority: 4,
            },
            { name: 'fields', test: /src\/parts\/form\/EntryField\.vue/, priority: 3 },
            { name: 'schemas', test: /node_modules\/yup\/|\/core\/schema\//, priority: 3 },
            {
              name: 'log',
              test: /src\/stores\/visit\.ts|\/core\/catalogue\/|\/contract\/gaugeUnder/,
              priority: 2,
            },
            { name: 'contract', test: /\/contract\//, priority: 1 },
          ],
        },
      },
    },
  },
  css: {
    preprocessorOptions: {
      scss: {
        quietDeps: true,
        silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'],
      },
    },
  },
  test: {
    name: 'web',
    environment: 'happy-dom',
    include: ['src/**/*.test.ts'],
    setupFiles: ['src/testing/conventions.ts'],
    testTimeout: 90_000,
  },
} as Parameters<typeof defineConfig>[0])

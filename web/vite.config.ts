import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { BootstrapVueNextResolver } from 'bootstrap-vue-next/resolvers'
import Icons from 'unplugin-icons/vite'
import Components from 'unplugin-vue-components/vite'
import { defineConfig } from 'vite'

const server = `http://127.0.0.1:${process.env.UVANTA_PORT ?? 4870}`

export default defineConfig({
  root: fileURLToPath(new URL('.', import.meta.url)),
  plugins: [
    vue(),
    Components({ dts: 'components.d.ts', dirs: [], resolvers: [BootstrapVueNextResolver()] }),
    Icons({ compiler: 'vue3' }),
  ],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  server: { host: '127.0.0.1', port: 5173, proxy: { '/api': server, '/.well-known': server } },
  optimizeDeps: { include: ['bootstrap-vue-next/components/*', 'bootstrap-vue-next/directives/*'] },
  build: {
    target: 'es2022',
    sourcemap: false,
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
  },
  css: {
    preprocessorOptions: {
      scss: {
        quietDeps: true,
        silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'],
      },
    },
  },
  test: { name: 'web', environment: 'happy-dom', include: ['src/**/*.test.ts'] },
} as Parameters<typeof defineConfig>[0])

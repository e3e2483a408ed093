import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import vue from '@vitejs/plugin-vue'
import vuetify from 'vite-plugin-vuetify'
import type { Plugin } from 'vite'
import { defineConfig } from 'vitest/config'

/** Write the worker that keeps this page, with the names of all its files. */
const offline = (): Plugin => ({
  name: 'offline',
  apply: 'build',
  enforce: 'post',
  generateBundle(_, bundle) {
    const files = Object.keys(bundle)
      .filter((name) => name.startsWith('assets/'))
      .sort()
      .map((name) => `/${name}`)
    const source = readFileSync('offline/worker.js', 'utf8')
    const version = createHash('sha256').update(source).update(files.join()).digest('hex').slice(0, 12)
    this.emitFile({
      type: 'asset',
      fileName: 'worker.js',
      source: source.replace("'__FILES__'", JSON.stringify(files)).replace('__VERSION__', version),
    })
  },
})

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true }), offline()],
  build: { target: 'es2022', manifest: true },
  server: { proxy: { '/api': 'http://127.0.0.1:8000' } },
  test: {
    environment: 'jsdom',
    include: ['src/**/*.test.ts'],
    setupFiles: ['src/tested.ts'],
    isolate: false,
    server: { deps: { inline: ['vuetify'] } },
  },
})

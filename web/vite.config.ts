import { copyFileSync, existsSync, mkdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

import vue from '@vitejs/plugin-vue'
import { defineConfig, type Plugin } from 'vite'
import vuetify from 'vite-plugin-vuetify'

/** The licence of everything that is in the build, fonts among it, is put beside it. */
function licences(): Plugin {
  return {
    name: 'licences',
    apply: 'build',
    closeBundle() {
      const lock = JSON.parse(readFileSync('package-lock.json', 'utf8')) as {
        packages: Record<string, { dev?: boolean }>
      }
      mkdirSync('dist/licences', { recursive: true })
      for (const [path, about] of Object.entries(lock.packages)) {
        if (!path || about.dev) continue
        const named = ['LICENSE', 'LICENSE.md', 'LICENSE.txt', 'license', 'LICENCE']
        const file = named.map((name) => join(path, name)).find((at) => existsSync(at))
        const name = path.replace(/^.*node_modules\//, '').replace('/', '-')
        if (file) copyFileSync(file, `dist/licences/${name}.txt`)
      }
    },
  }
}

export default defineConfig(({ command }) => ({
  base: command === 'build' ? '/static/' : '/',
  plugins: [vue(), vuetify({ autoImport: true }), licences()],
  build: { outDir: 'dist', emptyOutDir: true },
  server: { proxy: { '/api': 'http://127.0.0.1:8420' } },
}))

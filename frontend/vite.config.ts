import vue from '@vitejs/plugin-vue'
import { fileURLToPath, URL } from 'node:url'
import { defineConfig, type Plugin } from 'vite'

/** Letters and icons in the one form that every browser of today reads, out of the five that their packages ship. */
function onlyWoff2(): Plugin {
  return {
    name: 'only-woff2',
    enforce: 'pre',
    transform(code, id) {
      if (!/(primeicons|@fontsource)[^?]*\.css$/.test(id)) return undefined
      return code.replace(/src:[^;}]*;?/g, (src) => {
        const one = /url\([^)]*\.woff2[^)]*\)\s*format\((['"])woff2\1\)/.exec(src)
        return one ? `src: ${one[0]};` : ''
      })
    },
  }
}

export default defineConfig({
  plugins: [onlyWoff2(), vue()],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  build: { target: 'es2022', assetsInlineLimit: 0, manifest: 'manifest.json' },
  server: { proxy: { '/api': 'http://127.0.0.1:8425' } },
})

import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync } from 'node:zlib'
import { defineConfig, type Plugin } from 'vite'

/** Lays a file that is compressed as far as it goes beside each script and style; the server sends it. */
const packed: Plugin = {
  name: 'packed',
  writeBundle({ dir = 'dist' }, bundle) {
    for (const name of Object.keys(bundle)) {
      if (!/\.(js|css)$/.test(name)) continue
      writeFileSync(join(dir, `${name}.br`), brotliCompressSync(readFileSync(join(dir, name))))
    }
  },
}

export default defineConfig({
  plugins: [react(), tailwindcss(), packed],
  // No inline scripts or data: fonts: the Content-Security-Policy refuses them.
  build: {
    target: 'es2022',
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    license: { fileName: 'licenses/scripts.md' },
    // What every screen needs in a few lines comes in one file: each file costs a student's device some hundred bytes.
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            {
              name: 'small',
              test: /src\/wire\/(http|hooks\/useAsked)|src\/words\/(words\.ts|en\.json)|src\/kit\/(Button|Field|Logo|part|people)\.|src\/kit\/hooks\/useTitle|src\/frame\/paint\/colours|icons\/(check|plus|x|ellipsis|door-closed|message-square|thumbs-up|image|maximize|minus|eye|undo-2|message-circle-question-mark|circle|arrow-right|chevron-right|pen|eraser|hand)\.|createLucideIcon|uuid\/|useTranslation|jsx-runtime|react-router|react-dom/,
            },
            {
              name: 'work',
              test: /src\/frame\/(?!hand\/(Dictate|columns|speech|arrange|clipboard)|marks\/PreparedMark|paint\/(Thumbnail|canvas|paintQueue|columns|lines))(paint|marks|hand)\/|src\/rules\/(?!columns)|src\/frame\/(useCounts|useColumns|viewSign)|src\/polls\/sound\/Listen|src\/wire\/(ground|clock|keeping|outbox|undo|batches|sheets|lesson|desk|bench|hooks\/(useClock|useLesson|useCalm|useNarrow)|contents|passing|types)/,
            },
          ],
        },
      },
    },
  },
  server: {
    proxy: {
      '/api': { target: 'http://127.0.0.1:8080' },
      '/realtime': { target: 'http://127.0.0.1:8080', ws: true },
    },
  },
})

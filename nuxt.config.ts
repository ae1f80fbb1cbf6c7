import { join } from 'node:path'
import tailwind from '@tailwindcss/vite'
import { copyFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { build } from 'esbuild'

export default defineNuxtConfig({
  compatibilityDate: '2026-11-01',
  modules: ['@pinia/nuxt'],
  // A signed-in application that has to work on through a lost connection: pages are made in the browser.
  ssr: false,
  devtools: { enabled: false },
  telemetry: false,
  sourcemap: false,
  css: ['~/assets/main.css'],
  imports: { imports: ['ApiProblem', 'sentenceOf'].map((name) => ({ name, from: '~/client/api' })) },
  components: [{ path: '~/components', pathPrefix: false }],
  app: {
    head: {
      title: 'Thistle',
      htmlAttrs: { lang: 'en' },
      meta: [
        { name: 'viewport', content: 'width=device-width, initial-scale=1' },
        { name: 'color-scheme', content: 'light dark' },
      ],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/thistle.svg' }],
    },
  },
  experimental: {
    appManifest: false,
    payloadExtraction: false,
    // A page is fetched when somebody is about to open it, not because a list of links came into sight: poor networks.
    defaults: { nuxtLink: { prefetchOn: { visibility: false, interaction: true } } },
  },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
  vite: { plugins: [tailwind()], build: { target: 'es2023', assetsInlineLimit: 0 } },
  nitro: {
    errorHandler: '~~/server/error',
    compressPublicAssets: { gzip: true, brotli: true },
    hooks: {
      // What threads do (server/work) is a program of its own beside the server.
      compiled: async ({ options }) => {
        if (options.dev) return
        await build({
          entryPoints: [join(options.rootDir, 'server', 'work', 'thread.ts')],
          outfile: join(options.output.serverDir, 'worker.mjs'),
          bundle: true,
          platform: 'node',
          target: 'node20',
          format: 'esm',
          // Packages of the older kind ask for what they need by require.
          banner: {
            js: "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);",
          },
          logLevel: 'error',
        })
        // Its solver looks for its own program beside it.
        await copyFile(
          createRequire(import.meta.url).resolve('highs/runtime'),
          join(options.output.serverDir, 'highs.wasm'),
        )
      },
    },
  },
})

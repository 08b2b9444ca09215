import { fileURLToPath } from 'node:url'
import tailwindcss from '@tailwindcss/vite'
import { build } from 'esbuild'

/** The program of the thread for heavy work, bundled as text: the server carries it wherever it is put. */
async function threadCode(): Promise<string> {
  const { outputFiles } = await build({
    entryPoints: [fileURLToPath(new URL('./server/threads/thread.ts', import.meta.url))],
    bundle: true,
    platform: 'node',
    format: 'cjs',
    minify: true,
    write: false,
  })
  return `export default ${JSON.stringify(outputFiles[0]!.text)}`
}

/**
 * What does nothing when it is loaded (computation, tables, the framework's own composables): a page carries what it
 * asks something of, not what stands beside it.
 */
const PURE = ['core', 'shared', 'node_modules/nuxt/dist/app/composables'].map(folder =>
  fileURLToPath(new URL(`./${folder}/`, import.meta.url)),
)
const moduleSideEffects = (id: string) => !PURE.some(folder => id.startsWith(folder))

export default defineNuxtConfig({
  modules: ['@pinia/nuxt', '@nuxt/eslint', 'nuxt-security'],
  // every screen is built from the shop's own data; the first page is an outline until they are there
  ssr: false,
  // imports show where things come from
  components: false,
  imports: { autoImport: true, dirs: [] },
  // the document names the pieces of all pages, for when the browser has nothing else to do; they are run when somebody
  // makes for a link, those of the stations by themselves (plugins/ahead.client.ts)
  experimental: { defaults: { nuxtLink: { prefetchOn: { visibility: false, interaction: true } } } },
  devtools: { enabled: false },
  app: {
    head: {
      title: 'Iron Nozzle',
      htmlAttrs: { lang: 'en' },
      meta: [
        { name: 'viewport', content: 'width=device-width, initial-scale=1' },
        { name: 'color-scheme', content: 'light' },
      ],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/icon.svg' }],
    },
  },
  css: ['@fontsource-variable/archivo/wdth.css', 'vue-sonner/style.css', '~/assets/app.css'],
  spaLoadingTemplate: 'spa-loading.html',
  compatibilityDate: '2026-11-01',
  nitro: {
    virtual: { '#thread-code': threadCode },
    serverAssets: [{ baseName: 'migrations', dir: fileURLToPath(new URL('./server/db/migrations', import.meta.url)) }],
    compressPublicAssets: true,
  },
  vite: {
    plugins: [tailwindcss()],
    worker: { format: 'es' },
    build: {
      chunkSizeWarningLimit: 700,
      rollupOptions: {
        treeshake: { moduleSideEffects },
        // a tablet asks for a page in some pieces: neither in a hundred of some hundred bytes, nor with other pages
        output: { experimentalMinChunkSize: 1_000 },
      },
    },
    optimizeDeps: { include: ['@headlessui/vue', '@vueuse/core', 'comlink', 'hash-wasm', 'idb', 'zod'] },
  },
  typescript: {
    strict: true,
    tsConfig: { compilerOptions: { noUnusedLocals: true, noUnusedParameters: true, noUncheckedIndexedAccess: true } },
    sharedTsConfig: { include: ['../core/**/*'] },
    nodeTsConfig: {
      compilerOptions: {
        noUncheckedIndexedAccess: true,
        paths: { '~/*': ['../app/*'] },
      },
      include: ['../tests/**/*', '../bench/**/*', '../demo/**/*', '../sim/**/*', '../scripts/*.ts', '../*.config.ts'],
    },
  },
  telemetry: false,
  eslint: { config: { stylistic: false } }, // prettier lays it out
  security: {
    // A LAN application on plain http: each of these is set on purpose.
    headers: {
      crossOriginEmbedderPolicy: false, // it blocks workers
      crossOriginResourcePolicy: 'same-origin',
      strictTransportSecurity: false, // there is no https on the shop's LAN
      referrerPolicy: 'no-referrer',
      xFrameOptions: 'DENY',
      contentSecurityPolicy: {
        'default-src': ["'self'"],
        'script-src': ["'self'", "'nonce-{{nonce}}'", "'wasm-unsafe-eval'"],
        'style-src': ["'self'", "'unsafe-inline'"],
        'img-src': ["'self'", 'data:', 'blob:'],
        'font-src': ["'self'"],
        'connect-src': ["'self'"],
        'worker-src': ["'self'", 'blob:'],
        'object-src': ["'none'"],
        'base-uri': ["'self'"],
        'form-action': ["'self'"],
        'frame-ancestors': ["'none'"],
        'upgrade-insecure-requests': false,
      },
    },
    rateLimiter: false,
    requestSizeLimiter: { maxRequestSizeInBytes: 4_000_000, maxUploadFileRequestInBytes: 4_000_000, throwError: true },
    corsHandler: false,
    xssValidator: false,
    allowedMethodsRestricter: { methods: ['GET', 'HEAD', 'POST', 'PATCH'], throwError: true },
    hidePoweredBy: true,
  },
})

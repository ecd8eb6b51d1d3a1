import { randomUUID } from 'node:crypto'
import { fileURLToPath } from 'node:url'

const core = fileURLToPath(new URL('./core', import.meta.url))

const kebab = (name: string) => name.replace(/([a-z])([A-Z0-9])/g, '$1-$2').toLowerCase()
/** Reads an icon from its own file: the library's index brings two thousand more, to be read and dropped at each build. */
const iconByIcon = {
  name: 'icon-by-icon',
  enforce: 'pre' as const,
  transform: (code: string, id: string) =>
    id.includes('/app/') && code.includes('@lucide/vue')
      ? {
          code: code.replace(/import \{([^}]+)\} from '@lucide\/vue'/g, (_, names: string) =>
            names
              .split(',')
              .map((name) => name.trim())
              .filter(Boolean)
              .map((name) => `import ${name} from '@lucide/vue/dist/esm/icons/${kebab(name)}.mjs'`)
              .join(';'),
          ),
          map: null,
        }
      : undefined,
}

export default defineNuxtConfig({
  compatibilityDate: '2026-11-01',
  telemetry: false,
  // Nobody reads them back: what goes wrong on the server is told by its own words.
  sourcemap: false,
  devtools: { enabled: false },
  // A bench tool behind a login-free loopback address: docs/decisions/client-rendered.md.
  ssr: false,
  modules: ['@pinia/nuxt', 'nuxt-security', '@vite-pwa/nuxt'],
  alias: { '#core': core },
  css: [
    '@fontsource-variable/atkinson-hyperlegible-next/index.css',
    '@fontsource-variable/bricolage-grotesque/index.css',
    '~/assets/base.css',
  ],
  // A folder for each of the caster's places; what two of them share is a part.
  components: [
    'parts',
    'bench',
    'plan',
    'run',
    'field',
    'moulds',
    'plasters',
    'casts',
    'settings',
    'people',
    'print',
    'wall',
    'look',
  ].map((room) => ({
    path: `~/${room}`,
    pathPrefix: false,
    pattern: '**/*.vue',
  })),
  app: {
    head: {
      htmlAttrs: { lang: 'en' },
      title: 'Nine Ripples',
      viewport: 'width=device-width, initial-scale=1',
      link: [
        { rel: 'icon', type: 'image/svg+xml', href: '/rings.svg' },
        { rel: 'apple-touch-icon', href: '/icon-192.png' },
        { rel: 'manifest', href: '/manifest.webmanifest' },
      ],
      meta: [{ name: 'theme-color', content: '#12282f' }],
    },
  },
  // What a device needs to open without a network: docs/decisions/a-day-without-a-network.md.
  pwa: {
    strategies: 'generateSW',
    registerType: 'prompt',
    injectRegister: false,
    client: { registerPlugin: false },
    manifest: {
      id: '/',
      name: 'Nine Ripples',
      short_name: 'Nine Ripples',
      description: 'Plan, weigh, time, demould and dry hand-cast gypsum plaster.',
      lang: 'en',
      display: 'standalone',
      theme_color: '#12282f',
      background_color: '#12282f',
      icons: [
        { src: '/rings.svg', sizes: 'any', type: 'image/svg+xml' },
        { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
        { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
        { src: '/icon-maskable.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
      ],
    },
    workbox: {
      globPatterns: ['**/*.{js,css,woff2,svg}'],
      // The shell is an answer of the server and no file: it comes with the policy that its own scripts were allowed by.
      additionalManifestEntries: [{ url: '/', revision: randomUUID() }],
      navigateFallback: '/',
      navigateFallbackDenylist: [/^\/api\//],
      // A photograph never changes: its id is its content.
      runtimeCaching: [
        {
          urlPattern: ({ sameOrigin, url }) => sameOrigin && url.pathname.startsWith('/api/photos/'),
          handler: 'CacheFirst',
          method: 'GET',
          options: {
            cacheName: 'photographs',
            expiration: { maxEntries: 1000, purgeOnQuotaError: true },
            cacheableResponse: { statuses: [200] },
          },
        },
      ],
      inlineWorkboxRuntime: true,
      cleanupOutdatedCaches: true,
      clientsClaim: true,
      sourcemap: false,
    },
  },
  security: {
    headers: {
      crossOriginEmbedderPolicy: false,
      strictTransportSecurity: false,
      // A loud noise may be a knock, a print is photographed, and where it lies is kept if somebody wants it.
      permissionsPolicy: {
        camera: ['self'],
        'display-capture': [],
        fullscreen: [],
        geolocation: ['self'],
        microphone: ['self'],
      },
      contentSecurityPolicy: {
        'default-src': ["'self'"],
        // A photograph that is still on its way is shown from where it waits.
        'img-src': ["'self'", 'data:', 'blob:'],
        'style-src': ["'self'", "'unsafe-inline'"],
        'font-src': ["'self'"],
        'connect-src': ["'self'"],
        'script-src': ["'self'", "'nonce-{{nonce}}'", "'strict-dynamic'"],
        'upgrade-insecure-requests': false,
      },
    },
    corsHandler: false,
    rateLimiter: false,
    // Bodies are limited where they are read (server/utils/http.ts), chunked ones included.
    requestSizeLimiter: false,
    xssValidator: false,
  },
  experimental: {
    // One build at a time on one machine: nobody asks whether there is a newer one, and no route has a payload of its own.
    appManifest: false,
    payloadExtraction: false,
    renderJsonPayloads: false,
    defaults: {
      // The page's own prefetch hints already bring every view at low priority; running their code can wait for a hand.
      nuxtLink: { prefetchOn: { visibility: false, interaction: true } },
    },
  },
  // Parts in their states are looked at while they are made; whoever casts has no use for that.
  $production: {
    hooks: {
      'pages:extend'(pages) {
        const at = pages.findIndex((p) => p.path === '/look')
        if (at >= 0) pages.splice(at, 1)
      },
    },
  },
  $development: {
    hooks: {
      // Without server rendering the development server still asks for a server's entry; any will do, it is never run.
      'vite:extendConfig'(config, { isClient }) {
        const input = config.build?.rollupOptions?.input
        if (isClient && typeof input === 'object' && !Array.isArray(input)) input.server ??= input.entry!
      },
    },
  },
  nitro: {
    compressPublicAssets: { gzip: true, brotli: false },
    // One file is read in half the time of a thousand. sharp is compiled for the machine, the others fail when put together.
    externals: { inline: [(id: string) => !/(^|node_modules\/)(sharp|@img|papaparse|pino)(\/|$)/.test(id)] },
  },
  typescript: { strict: true },
  vite: {
    plugins: [iconByIcon],
    optimizeDeps: { include: ['chart.js', 'vue-chartjs'] },
    build: {
      rollupOptions: {
        output: { experimentalMinChunkSize: 4000 },
        treeshake: {
          // What the models are made of does nothing by being read. Nor does the framework's own fetching, which nobody uses.
          moduleSideEffects: (id) =>
            !id.startsWith(core) && !/nuxt\/dist\/app\/composables\/(asyncData|fetch)\.js$/.test(id),
        },
      },
    },
  },
})

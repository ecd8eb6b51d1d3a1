/** Which build of the application this window runs: what another one worked out does not stand for what this one would. */
export const BUILD: string = globalThis.window?.__NUXT__?.config?.app?.buildId ?? ''

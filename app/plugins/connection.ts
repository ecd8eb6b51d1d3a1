import { useConnection } from '~/stores/connection'

/**
 * Everything is loaded here, once: what falls due rings wherever one is. Out of reach the page is drawn when it has
 * something to show, and not twice. After the bench is handed in: plugins run in the order of their names.
 */
export default defineNuxtPlugin({ parallel: true, setup: () => useConnection().start() })

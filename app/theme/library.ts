import PrimeVue from 'primevue/config'
import type { App } from 'vue'
import { theme } from './preset'

/** Makes the component library known to the application, in our look. */
export const installLibrary = (app: App) => void app.use(PrimeVue, { theme, ripple: false })

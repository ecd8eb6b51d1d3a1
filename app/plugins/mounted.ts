/** Marks the document once the page can be used: before that, a click would be lost. Tests wait for it. */
export default defineNuxtPlugin((nuxtApp) => {
  nuxtApp.hook('app:mounted', () => document.documentElement.setAttribute('data-mounted', ''))
})

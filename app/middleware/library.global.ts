let isThere = false

/** Every page but the bench may draw the library's components: it is there before one does, and the bench does not wait for it. */
export default defineNuxtRouteMiddleware(async (to) => {
  if (isThere || to.path === '/') return
  const { vueApp } = useNuxtApp()
  const { installLibrary } = await import('~/theme/library')
  installLibrary(vueApp)
  isThere = true
})

import { useKeptByDevice } from '~/stores/kept'

/** On a device's first open the caution comes before anything else; then it leads back to where one was going. */
export default defineNuxtRouteMiddleware((to) => {
  const read = useKeptByDevice('nine-ripples.caution-read', false)
  if (read.value || to.path === '/safety') return
  useState('after-caution', () => '/').value = to.path
  return navigateTo('/safety')
})

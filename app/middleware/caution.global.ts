import { useKeptByDevice } from '~/stores/kept'

/** Where a device is let in: there is nothing to pour yet. */
const BEFORE_ALL = ['/safety', '/pair', '/trust']

/** On a device's first open the caution comes before anything else; then it leads back to where one was going. */
export default defineNuxtRouteMiddleware((to) => {
  const read = useKeptByDevice('nine-ripples.caution-read', false)
  if (read.value || BEFORE_ALL.includes(to.path)) return
  useState('after-caution', () => '/').value = to.path
  return navigateTo('/safety')
})

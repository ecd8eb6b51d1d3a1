import { updatePreset } from '@primeuix/themes'

let isWhole = false

/** Every page but the bench may draw the library's components: their tokens are there before it does. */
export default defineNuxtRouteMiddleware(async (to) => {
  if (isWhole || to.path === '/') return
  const { componentTokens } = await import('~/theme/components')
  updatePreset(componentTokens)
  isWhole = true
})

const PHONE_PX = 600
const TABLET_PX = 1100

/** What this device is, as a workshop would call it. */
export function deviceWords(): string {
  if (!matchMedia('(pointer: coarse)').matches) return 'Computer'
  const shorterPx = Math.min(screen.width, screen.height)
  return shorterPx < PHONE_PX ? 'Phone' : shorterPx < TABLET_PX ? 'Tablet' : 'Screen'
}

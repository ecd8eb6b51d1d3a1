import sharp from 'sharp'
import type { Spot } from '../../core/field'
import { seen, type Camera } from './camera'

/** A print in mud with a card beside it, as this camera shows them. */
export function printPicture(camera: Camera, card: readonly Spot[], print: readonly Spot[]): Promise<Buffer> {
  const path = (spots: readonly Spot[]) =>
    `M${spots
      .map((s) => seen(camera, s))
      .map((p) => `${p.x.toFixed(2)} ${p.y.toFixed(2)}`)
      .join('L')}Z`
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${camera.widthPx}" height="${camera.heightPx}">
    <rect width="100%" height="100%" fill="#9a8768"/>
    <path d="${path(print)}" fill="#5d4d36"/><path d="${path(card)}" fill="#f0f0ec"/></svg>`
  return sharp(Buffer.from(svg)).png().toBuffer()
}

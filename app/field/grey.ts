import type { Grey } from '#core/field'

/** A picture's brightness, at its own size; undefined where the browser does not give it. */
export async function greyOf(src: string, width: number, height: number): Promise<Grey | undefined> {
  try {
    const image = new Image()
    image.src = src
    await image.decode()
    return greyIn(image, width, height)
  } catch {
    return undefined
  }
}

/** The same of whatever can be drawn. */
export function greyIn(source: CanvasImageSource, width: number, height: number): Grey {
  const canvas = new OffscreenCanvas(width, height)
  const pen = canvas.getContext('2d', { willReadFrequently: true })!
  pen.drawImage(source, 0, 0, width, height)
  const { data } = pen.getImageData(0, 0, width, height)
  const light = new Uint8ClampedArray(width * height)
  // As bright as it looks (ITU-R BT.601).
  for (let i = 0; i < light.length; i++)
    light[i] = 0.299 * data[4 * i]! + 0.587 * data[4 * i + 1]! + 0.114 * data[4 * i + 2]!
  return { width, height, light }
}

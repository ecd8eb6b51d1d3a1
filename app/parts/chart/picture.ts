/** Pixels to a unit of the drawing: sharp on paper, too. */
const SCALE = 2

/**
 * Draws an SVG file as a picture.
 * @param svg with its width and height on its root.
 * @returns the address of a PNG, as data.
 */
export async function pngOfSvg(svg: string): Promise<string> {
  const image = new Image()
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`
  await image.decode()
  const canvas = document.createElement('canvas')
  canvas.width = image.naturalWidth * SCALE
  canvas.height = image.naturalHeight * SCALE
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height)
  return canvas.toDataURL('image/png')
}

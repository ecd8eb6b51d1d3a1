import QRCode from 'qrcode'

/** A code as one path of unit squares, with the four quiet modules that readers want around it. */
export function qrPath(text: string): { path: string; size: number } {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' })
  const QUIET = 4
  let path = ''
  for (let y = 0; y < modules.size; y++)
    for (let x = 0; x < modules.size; x++) if (modules.get(y, x)) path += `M${x + QUIET} ${y + QUIET}h1v1h-1z`
  return { path, size: modules.size + 2 * QUIET }
}

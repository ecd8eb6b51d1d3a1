/** A name for a file out of what a caster wrote: small letters and hyphens. */
export const fileName = (piece: string, what: string) =>
  `${piece.replaceAll(/[^\p{L}\p{N}-]+/gu, '-').toLowerCase()}-${what}`

/** Hands a file to the browser's downloads. */
export function saveFile(name: string, type: string, content: string): void {
  const url = URL.createObjectURL(new Blob([content], { type }))
  saveUrl(name, url)
  URL.revokeObjectURL(url)
}

/** The same of what is at an address of its own. */
export function saveUrl(name: string, url: string): void {
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
}

const ENTITIES: Record<string, string> = {
  '<': '&lt;',
  '>': '&gt;',
  '&': '&amp;',
  '"': '&quot;',
  "'": '&apos;',
}

/** What somebody wrote, as XML may hold it: it holds no control characters, however they are written. */
export const xmlText = (text: string): string =>
  text.replaceAll(/\p{Cc}/gu, ' ').replaceAll(/[<>&"']/g, (c) => ENTITIES[c]!)

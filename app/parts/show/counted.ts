import { plain } from './figures'

const IRREGULAR: Record<string, string> = { cavity: 'cavities', batch: 'batches' }

/** A number of things, in words that hold for one and for many. */
export function counted(n: number, thing: string): string {
  return `${plain(n)} ${n === 1 ? thing : (IRREGULAR[thing] ?? `${thing}s`)}`
}

import { createReadStream, createWriteStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { finished } from 'node:stream/promises'
import { once } from 'node:events'
import { mouldBundleSchema, type MouldBundle } from '../../shared/moulds'
import { DomainError } from '../services/domainError'
import { jsonItems } from '../services/jsonItems'
import { parseWith } from './http'

const { format, version, moulds, sets } = mouldBundleSchema.shape

/** One with all its photographs, as text. */
const MOST_MOULD_BYTES = 64 * 1024 * 1024

export type ShelfItem =
  | { list: 'moulds'; value: MouldBundle['moulds'][number] }
  | { list: 'sets'; value: MouldBundle['sets'][number] }

/** The file's own path to what is wrong, e.g. `moulds.1.thicknessMm`. */
function checked(list: ShelfItem['list'], index: number, value: unknown): ShelfItem {
  try {
    return list === 'moulds'
      ? { list, value: parseWith(moulds.element, value) }
      : { list, value: parseWith(sets.element, value) }
  } catch (error) {
    if (!(error instanceof DomainError)) throw error
    throw new DomainError(
      error.code,
      error.fields.map((f) => ({ ...f, path: [list, index, f.path].join('.') })),
    )
  }
}

/**
 * What is in a shelf's file, one thing after the other, each as soon as it is whole: the file may be far larger than what
 * is held of it.
 * @throws DomainError invalid_json, payload_too_large, or invalid_input with the path of what is wrong.
 */
export async function* itemsOfShelfFile(source: AsyncIterable<Uint8Array>): AsyncGenerator<ShelfItem> {
  const count = { moulds: 0, sets: 0 }
  const most = { moulds: 2000, sets: 500 }
  const head = new Set<unknown>()
  const paths = ['$.format', '$.version', '$.moulds.*', '$.sets.*']
  for await (const { path, value } of jsonItems(source, paths, MOST_MOULD_BYTES)) {
    const [list] = path
    if (list === 'format') head.add(parseWith(format, value))
    else if (list === 'version') head.add(parseWith(version, value))
    else if (list === 'moulds' || list === 'sets') {
      // What kind of file it is stands before what is in it.
      if (head.size < 2) throw new DomainError('invalid_input', [{ path: 'format', message: 'comes first' }])
      const index = count[list]++
      if (index >= most[list])
        throw new DomainError('invalid_input', [{ path: list, message: 'is too long' }])
      yield checked(list, index, value)
    }
  }
  if (head.size < 2) throw new DomainError('invalid_input', [{ path: 'format', message: 'is missing' }])
}

/** A larger file than this is none of a shelf. */
const MOST_FILE_BYTES = 4_000_000_000

/**
 * Puts what comes in on disk while `look` reads it; then `use` gets it to read again. Nothing is used of a file that has
 * not been looked through to its end.
 */
export async function spooled<T>(
  source: AsyncIterable<Uint8Array>,
  look: (through: AsyncIterable<Uint8Array>) => Promise<void>,
  use: (again: AsyncIterable<Uint8Array>) => Promise<T>,
): Promise<T> {
  const folder = await mkdtemp(join(tmpdir(), 'nine-ripples-'))
  const path = join(folder, 'shelf.json')
  const out = createWriteStream(path)
  try {
    await look(copiedTo(out, source))
    out.end()
    await finished(out)
    return await use(createReadStream(path) as AsyncIterable<Uint8Array>)
  } finally {
    out.destroy()
    await rm(folder, { recursive: true, force: true })
  }
}

async function* copiedTo(
  out: ReturnType<typeof createWriteStream>,
  source: AsyncIterable<Uint8Array>,
): AsyncGenerator<Uint8Array> {
  let bytes = 0
  for await (const chunk of source) {
    bytes += chunk.length
    if (bytes > MOST_FILE_BYTES) throw new DomainError('payload_too_large')
    if (!out.write(chunk)) await once(out, 'drain')
    yield chunk
  }
}

import type { PourFacts } from '#core/pour'

export interface TakenPhoto {
  id: string
  caption: string
  atMs: number
  who: string
  /** Which casts it shows; undefined: all of them. */
  pieces: number[] | undefined
}

/** Photographs of a pour that count, oldest first. */
export function photosOf({ live }: Pick<PourFacts, 'live'>): TakenPhoto[] {
  return live.flatMap(({ body, occurredAtMs, who }) =>
    body.type === 'photographed'
      ? [{ id: body.photoId, caption: body.caption, atMs: occurredAtMs, who, pieces: body.pieces }]
      : [],
  )
}

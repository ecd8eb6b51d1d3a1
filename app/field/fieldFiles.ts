import type { Position } from '#core/field'
import type { MouldCard } from '~~/shared/moulds'
import { wayOf } from '~/parts/field/derive'
import { xmlText } from '~/parts/show/xmlText'

/** Prints as other programs read and write them: GeoJSON (RFC 7946) and GPX 1.1. */

/** A place that a file holds, and what it says of it. */
export interface FiledPlace {
  name: string
  position: Position
  atMs: number | null
  note: string
}
export const MOST_PLACES = 200
export const MOST_FILE_BYTES = 5_000_000

interface Feature {
  type: 'Feature'
  geometry: { type: string; coordinates: unknown } | null
  properties: Record<string, unknown> | null
}

/** @param withPlaces where they lie goes along; else nothing of it does, in words neither. */
export function toGeoJson(cards: readonly MouldCard[], withPlaces: boolean) {
  return {
    type: 'FeatureCollection' as const,
    features: cards.flatMap((card) => {
      const { find } = card
      if (!find) return []
      const way = wayOf(card)
      const { position } = find
      return [
        {
          type: 'Feature' as const,
          id: card.id,
          geometry:
            withPlaces && position
              ? { type: 'Point' as const, coordinates: [position.lonDeg, position.latDeg] }
              : null,
          properties: {
            name: card.name,
            time: new Date(find.foundAtMs).toISOString(),
            ground: find.ground,
            ...(withPlaces ? { place: find.place, withinM: position?.withinM ?? null } : {}),
            weather: find.weather,
            light: find.light,
            depthsMm: find.depthsMm,
            lengthMm: way?.printLengthMm ?? null,
            areaMm2: way?.areaMm2 ?? null,
            note: card.note,
          },
        },
      ]
    }),
  }
}

/** Waypoints of those whose place is kept. */
export function toGpx(cards: readonly MouldCard[]): string {
  const points = cards.flatMap(({ name, find, note }) =>
    find?.position
      ? [
          `  <wpt lat="${find.position.latDeg}" lon="${find.position.lonDeg}"><time>${new Date(find.foundAtMs).toISOString()}</time><name>${xmlText(name)}</name><desc>${xmlText([find.ground, find.place, note].filter(Boolean).join('; '))}</desc></wpt>`,
        ]
      : [],
  )
  return `<?xml version="1.0" encoding="UTF-8"?>\n<gpx version="1.1" creator="Nine Ripples" xmlns="http://www.topografix.com/GPX/1/1">\n${points.join('\n')}\n</gpx>\n`
}

const textOf = (value: unknown, most: number) => (typeof value === 'string' ? value.slice(0, most) : '')

/** Points of a feature collection; anything else in it is no print. @returns undefined where it is none at all. */
export function placesOf(json: unknown): { places: FiledPlace[]; others: number } | undefined {
  const whole = json as { type?: unknown; features?: unknown } | null
  const features =
    whole?.type === 'FeatureCollection' && Array.isArray(whole.features)
      ? (whole.features as (Feature | null)[])
      : whole?.type === 'Feature'
        ? [whole as unknown as Feature]
        : undefined
  if (!features) return undefined
  const places = features.slice(0, 10 * MOST_PLACES).flatMap((f): FiledPlace[] => {
    const at = f?.geometry?.type === 'Point' ? (f.geometry.coordinates as unknown[]) : undefined
    const [lonDeg, latDeg] = Array.isArray(at) ? at : []
    if (typeof lonDeg !== 'number' || typeof latDeg !== 'number') return []
    if (!(Math.abs(latDeg) <= 90 && Math.abs(lonDeg) <= 180)) return []
    const said = f!.properties ?? {}
    const atMs = Date.parse(textOf(said.time, 40))
    return [
      {
        name: textOf(said.name, 120).trim(),
        position: { latDeg, lonDeg },
        atMs: Number.isFinite(atMs) && atMs >= 0 ? atMs : null,
        note: textOf(said.note ?? said.desc, 2000),
      },
    ]
  })
  const read = places.slice(0, MOST_PLACES)
  return { places: read, others: features.length - read.length }
}

/** What a file of either kind holds; undefined where it is neither. */
export async function readFieldFile(file: File): Promise<ReturnType<typeof placesOf>> {
  if (file.size > MOST_FILE_BYTES) return undefined
  const text = await file.text()
  try {
    if (!text.trimStart().startsWith('<')) return placesOf(JSON.parse(text))
    const { gpx } = await import('@tmcw/togeojson')
    const parsed = new DOMParser().parseFromString(text, 'text/xml')
    if (parsed.querySelector('parsererror') || parsed.documentElement.localName !== 'gpx') return undefined
    return placesOf(gpx(parsed))
  } catch {
    return undefined
  }
}

import { rounded } from '~/parts/show/figures'
import { profileFromCsv, profileFromSvg } from '#core/formats'
import type { Point, ProfileNode, VolumeMethod } from '#core/mould'
import { PROFILE_FILE_WORDS } from '~/parts/words/mould'

export type ProfileMethod = Extract<VolumeMethod, { by: 'profile' }>

/** Grid lines between two places, mm, on whole steps. */
export function gridLines(fromMm: number, toMm: number, stepMm: number): number[] {
  const first = Math.ceil(fromMm / stepMm)
  const count = Math.max(0, Math.floor(toMm / stepMm) - first + 1)
  return Array.from({ length: count }, (_, i) => (first + i) * stepMm)
}

/** What lies below a level, from the axis to the profile, as SVG path data with y down; '' when nothing does. */
export function filledPath(line: readonly Point[], levelMm: number): string {
  const below = line.filter((p) => p[1] <= levelMm)
  const [low, high] = [below[0], below.at(-1)]
  if (!low || !high) return ''
  return `M0 ${-levelMm}L0 ${-low[1]}${below.map(([r, z]) => `L${r} ${-z}`).join('')}L${high[0]} ${-levelMm}Z`
}

/** Volume against depth as SVG path data in a box 100 wide and 60 high. */
export function depthCurvePath(curve: readonly { depthMm: number; volumeMl: number }[]): string {
  const full = curve.at(-1)
  if (!full || full.depthMm <= 0) return ''
  return curve
    .map((c, i) => {
      const x = (c.depthMm / full.depthMm) * 100
      const y = 60 - (c.volumeMl / Math.max(1e-9, full.volumeMl)) * 60
      return `${i === 0 ? 'M' : 'L'}${rounded(x, 2)} ${rounded(y, 2)}`
    })
    .join('')
}

/** A profile out of a file, SVG or CSV by its name or else its look, with what to say about it. */
export function readProfileFile(
  name: string,
  text: string,
): { nodes: ProfileNode[]; said: string } | { problem: string } {
  const isSvg = /\.svg$/i.test(name) || /^\s*(<|[Mm]\s*-?\d)/.test(text)
  const read = isSvg ? profileFromSvg(text) : profileFromCsv(text)
  if (!read.ok) {
    const words = PROFILE_FILE_WORDS[read.code]
    const where = words.endsWith('.') ? '' : `: ${read.at}.`
    return { problem: `${words}${where} The drawing stands as it was.` }
  }
  const { nodes, points } = read
  const said =
    points > nodes.length
      ? `${points} points read, thinned to ${nodes.length} that keep the form.`
      : `${nodes.length} points read.`
  return { nodes, said }
}

import Papa from 'papaparse'
import SvgPath from 'svgpath'
import { curveHandles, thinProfile, type ProfileNode } from '../mould'

/**
 * Turned profiles as files. SVG: one path, mm, x across from the axis, y down as SVG has it, from the deepest point to
 * the rim. CSV: two columns, radius and height in mm, and perhaps a third that says `smooth`.
 */

export type ProfileFileError = 'no_path' | 'broken_path' | 'no_numbers' | 'too_few_points' | 'left_of_axis'

export type ProfileImport =
  | { ok: true; nodes: ProfileNode[]; /** Points the file had, before thinning. */ points: number }
  | { ok: false; code: ProfileFileError; /** What could not be read. */ at: string }

const coordinate = (value: number) => Number(value.toFixed(3))

/** The profile as SVG path data in mm; smooth spans become cubic curves. */
export function svgPathOf(nodes: readonly ProfileNode[]): string {
  const at = (across: number, up: number) => `${coordinate(across)} ${coordinate(-up)}`
  return nodes
    .map((node, i) => {
      if (i === 0) return `M${at(node.radiusMm, node.heightMm)}`
      const handles = curveHandles(nodes, i - 1)
      const end = at(node.radiusMm, node.heightMm)
      return handles ? `C${at(...handles.first)} ${at(...handles.second)} ${end}` : `L${end}`
    })
    .join('')
}

/** A whole SVG file, true to size when opened elsewhere. */
export function profileToSvg(nodes: readonly ProfileNode[]): string {
  const right = Math.ceil(Math.max(...nodes.map((n) => n.radiusMm)) + 5)
  const top = Math.ceil(Math.max(...nodes.map((n) => n.heightMm)) + 5)
  const low = Math.floor(Math.min(0, ...nodes.map((n) => n.heightMm)) - 5)
  const height = top - low
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${right + 5}mm" height="${height}mm" viewBox="-5 ${-top} ${right + 5} ${height}">`,
    `<path d="${svgPathOf(nodes)}" fill="none" stroke="black" stroke-width="0.5"/>`,
    '</svg>',
    '',
  ].join('\n')
}

export function profileToCsv(nodes: readonly ProfileNode[]): string {
  return Papa.unparse(
    nodes.map((n) => ({
      radius_mm: coordinate(n.radiusMm),
      height_mm: coordinate(n.heightMm),
      smooth: n.smooth ? 'smooth' : '',
    })),
    { newline: '\n' },
  )
}

/** Deepest point first and standing on the floor: what the drawing board expects, whichever way a file ran. */
function settle(nodes: ProfileNode[], points: number): ProfileImport {
  if (nodes.length < 2) return { ok: false, code: 'too_few_points', at: String(nodes.length) }
  const stray = nodes.find((n) => n.radiusMm < -0.001)
  if (stray) return { ok: false, code: 'left_of_axis', at: `${stray.radiusMm}, ${stray.heightMm}` }
  const upward = nodes[0]!.heightMm <= nodes.at(-1)!.heightMm ? nodes : [...nodes].reverse()
  const floorMm = upward.reduce((low, n) => Math.min(low, n.heightMm), Infinity)
  const standing = upward.map((n) => ({
    radiusMm: Math.max(0, n.radiusMm),
    heightMm: n.heightMm - floorMm,
    smooth: n.smooth,
  }))
  return { ok: true, nodes: thinProfile(standing), points }
}

/** How many smooth nodes stand for one curve of a file. */
const NODES_PER_CURVE = 6

function nodesOfPath(d: string): ProfileNode[] {
  const nodes: ProfileNode[] = []
  // Arcs and shorthand become plain cubic curves first, in absolute coordinates.
  new SvgPath(d)
    .abs()
    .unarc()
    .unshort()
    .iterate((segment, _, x, y) => {
      const [command, ...v] = segment as [string, ...number[]]
      const put = (across: number, down: number, smooth: boolean) =>
        nodes.push({ radiusMm: across, heightMm: -down, smooth })
      if (command === 'M' || command === 'L') put(v[0]!, v[1]!, false)
      if (command === 'H') put(v[0]!, y, false)
      if (command === 'V') put(x, v[0]!, false)
      if (command !== 'C' && command !== 'Q') return
      if (nodes.length === 1) nodes[0]!.smooth = true
      const [ax, ay] = [v[0]!, v[1]!]
      const [bx, by, ex, ey] = command === 'C' ? v.slice(2) : [ax, ay, v[2], v[3]]
      for (let i = 1; i <= NODES_PER_CURVE; i++) {
        const t = i / NODES_PER_CURVE
        const u = 1 - t
        const cubic = (p: number, a: number, b: number, e: number) =>
          u ** 3 * p + 3 * u * u * t * a + 3 * u * t * t * b + t ** 3 * e
        const quadratic = (p: number, a: number, e: number) => u * u * p + 2 * u * t * a + t * t * e
        const across = command === 'C' ? cubic(x, ax, bx!, ex!) : quadratic(x, ax, ex!)
        const down = command === 'C' ? cubic(y, ay, by!, ey!) : quadratic(y, ay, ey!)
        put(across, down, i < NODES_PER_CURVE)
      }
    })
  const [last, beforeLast] = [nodes.at(-1), nodes.at(-2)]
  if (last && beforeLast?.smooth) last.smooth = true
  return nodes
}

/** Reads a profile from a whole SVG file or from bare path data. The first path counts. */
export function profileFromSvg(text: string): ProfileImport {
  const isFile = /<\w/.test(text)
  const d = isFile ? /<path[^>]*?\sd\s*=\s*(["'])([\s\S]*?)\1/i.exec(text)?.[2] : text.trim()
  if (!d) return { ok: false, code: 'no_path', at: text.trim().slice(0, 40) }
  const { err } = new SvgPath(d) as unknown as { err: string }
  if (err) return { ok: false, code: 'broken_path', at: err.replace(/^SvgPath: /, '') }
  const nodes = nodesOfPath(d)
  if (nodes.some((n) => !Number.isFinite(n.radiusMm) || !Number.isFinite(n.heightMm)))
    return { ok: false, code: 'broken_path', at: d.slice(0, 40) }
  return settle(nodes, nodes.length)
}

/** Reads radius and height, mm, from the first two columns; a heading line is passed over. */
export function profileFromCsv(text: string): ProfileImport {
  const { data } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: 'greedy' })
  const nodes: ProfileNode[] = []
  for (const [line, row] of data.entries()) {
    const [radiusMm, heightMm] = [Number(row[0]?.trim() || NaN), Number(row[1]?.trim() || NaN)]
    if (Number.isFinite(radiusMm) && Number.isFinite(heightMm))
      nodes.push({ radiusMm, heightMm, smooth: row[2]?.trim() === 'smooth' })
    else if (line > 0)
      return { ok: false, code: 'no_numbers', at: `${line + 1}: ${row.join(',').slice(0, 40)}` }
  }
  if (nodes.length === 0) return { ok: false, code: 'no_numbers', at: text.trim().slice(0, 40) }
  return settle(nodes, nodes.length)
}

import { readFileSync, readdirSync } from 'node:fs'
import { dirname, join, normalize, relative } from 'node:path'

/** An import that goes where it must not, or a ring of imports. */
export interface LayerFault {
  file: string
  target: string
  why: string
}

const ROOTS = ['core', 'shared', 'server', 'app'] as const
const MAY_IMPORT: Record<(typeof ROOTS)[number], readonly string[]> = {
  core: ['core'],
  shared: ['core', 'shared'],
  server: ['core', 'shared', 'server'],
  app: ['core', 'shared', 'app'],
}

/** The caster's places. None knows another: what two of them share is a part. */
const ROOMS = ['bench', 'plan', 'run', 'field', 'moulds', 'plasters', 'casts', 'settings', 'print', 'look']

/** Within the app, from the page down: nothing imports from further up. */
const APP_RANK: Record<string, number> = {
  pages: 3,
  ...Object.fromEntries(ROOMS.map((room) => [room, 2])),
  parts: 1,
  stores: 0,
}

const IMPORT =
  /(?:import|export)\s[^'"]*?from\s*['"]([^'"]+)['"]|import\(\s*['"]([^'"]+)['"]\s*\)|import\s+['"]([^'"]+)['"]/g

export function importsOf(source: string): string[] {
  return [...source.matchAll(IMPORT)].map((m) => (m[1] ?? m[2] ?? m[3])!)
}

/** Components that a template names: they are found by name, and no import says so. */
export function componentsOf(source: string): string[] {
  return [...new Set([...source.matchAll(/<([A-Z]\w+)/g)].map((m) => m[1]!))]
}

/** Project path an import means, without extension; undefined for a package. */
export function resolveImport(file: string, specifier: string): string | undefined {
  if (specifier.startsWith('#core/')) return specifier.slice(1)
  if (specifier.startsWith('~~/')) return specifier.slice(3)
  if (specifier.startsWith('~/')) return `app/${specifier.slice(2)}`
  if (specifier.startsWith('.')) return normalize(join(dirname(file), specifier))
  return undefined
}

function subjectOf(path: string): string | undefined {
  const [root, subject, ...rest] = path.split('/')
  return root === 'core' && (rest.length > 0 || !/\.\w+$/.test(subject ?? '')) ? subject : undefined
}

/** Why this import is against the arrows; undefined if it is fine. */
export function judge(file: string, target: string): string | undefined {
  const from = file.split('/')[0] as (typeof ROOTS)[number]
  const to = target.split('/')[0]!
  // What a thermometer of the demo has read is told by the model of its stand-in.
  if (file.startsWith('server/demo/') && target.startsWith('devices/')) return undefined
  if (!MAY_IMPORT[from].includes(to)) return `${from} may not import ${to}`
  const [fromSubject, toSubject] = [subjectOf(file), subjectOf(target)]
  const pastIndex = target.split('/').length > 2 && toSubject !== undefined
  if (pastIndex && fromSubject !== toSubject) return `${toSubject} is entered past its index`
  if (file.startsWith('server/api/') && target.startsWith('server/db/'))
    return 'a route reaches the database past its workshop'
  if (from === 'app' && to === 'app') {
    const [fromRoom, toRoom] = [file.split('/')[1]!, target.split('/')[1]!]
    if (ROOMS.includes(fromRoom) && ROOMS.includes(toRoom) && fromRoom !== toRoom)
      return 'a way from one room into another'
    const [fromRank, toRank] = [APP_RANK[fromRoom], APP_RANK[toRoom]]
    if (fromRank !== undefined && toRank !== undefined && toRank > fromRank)
      return 'an import upwards within the app'
  }
  return undefined
}

/** A ring of files, if there is one. */
export function findCycle(graph: ReadonlyMap<string, readonly string[]>): string[] | undefined {
  const done = new Set<string>()
  const path: string[] = []
  const visit = (node: string): string[] | undefined => {
    if (done.has(node)) return undefined
    const at = path.indexOf(node)
    if (at >= 0) return [...path.slice(at), node]
    path.push(node)
    for (const next of graph.get(node) ?? []) {
      const ring = visit(next)
      if (ring) return ring
    }
    path.pop()
    done.add(node)
    return undefined
  }
  for (const node of graph.keys()) {
    const ring = visit(node)
    if (ring) return ring
  }
  return undefined
}

/** Reads every source file under `root` and returns the faults and how many files were read. */
export function checkLayers(root: string): { faults: LayerFault[]; files: number } {
  const files = ROOTS.flatMap((top) =>
    readdirSync(join(root, top), { recursive: true, encoding: 'utf8' })
      .filter((f) => /\.(ts|vue)$/.test(f) && !/\.test\.ts$/.test(f))
      .map((f) => relative('.', join(top, f))),
  )
  const byStem = new Map(
    files.flatMap((f) => [
      [f, f],
      [f.replace(/\.ts$/, ''), f],
      [f.replace(/\/index\.ts$/, ''), f],
    ]),
  )
  const byComponent = new Map(
    files.flatMap((f) => (f.endsWith('.vue') ? [[f.replace(/^.*\/|\.vue$/g, ''), f] as const] : [])),
  )
  const faults: LayerFault[] = []
  const graph = new Map<string, string[]>()
  for (const file of files) {
    const source = readFileSync(join(root, file), 'utf8')
    const named = file.endsWith('.vue') ? componentsOf(source).map((c) => byComponent.get(c)) : []
    const targets = [...importsOf(source).map((s) => resolveImport(file, s)), ...named].filter(
      (t) => t !== undefined && t !== file,
    ) as string[]
    for (const target of targets) {
      const why = judge(file, target)
      if (why) faults.push({ file, target, why })
    }
    graph.set(
      file,
      targets.flatMap((t) => byStem.get(t) ?? []),
    )
  }
  const ring = findCycle(graph)
  if (ring) faults.push({ file: ring[0]!, target: ring.join(' → '), why: 'a ring of imports' })
  return { faults, files: files.length }
}

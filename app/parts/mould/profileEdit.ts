import { rounded } from '~/parts/show/figures'
import { MAX_PROFILE_NODES, type ProfileNode } from '#core/mould'

/** Changes to a profile under the hand. Each gives a new list; the old one stays as it was. */

/** Moves a node, never left of the axis, to whole steps of the grid. */
export function moveNode(
  nodes: readonly ProfileNode[],
  i: number,
  radiusMm: number,
  heightMm: number,
  stepMm: number,
): ProfileNode[] {
  const snap = (value: number) => rounded(Math.round(value / stepMm) * stepMm, 3)
  return nodes.map((n, k) =>
    k === i ? { ...n, radiusMm: Math.max(0, snap(radiusMm)), heightMm: snap(heightMm) } : n,
  )
}

/** A node more, half way to the next; after the last one it continues the line upwards. */
export function insertAfter(nodes: readonly ProfileNode[], i: number): ProfileNode[] {
  if (nodes.length >= MAX_PROFILE_NODES) return [...nodes]
  const [from, to] = [nodes[i]!, nodes[i + 1]]
  const added: ProfileNode = to
    ? {
        radiusMm: (from.radiusMm + to.radiusMm) / 2,
        heightMm: (from.heightMm + to.heightMm) / 2,
        smooth: from.smooth && to.smooth,
      }
    : { radiusMm: from.radiusMm, heightMm: from.heightMm + 20, smooth: false }
  return [...nodes.slice(0, i + 1), added, ...nodes.slice(i + 1)]
}

export function removeNode(nodes: readonly ProfileNode[], i: number): ProfileNode[] {
  return nodes.length <= 2 ? [...nodes] : nodes.filter((_, k) => k !== i)
}

export function toggleSmooth(nodes: readonly ProfileNode[], i: number): ProfileNode[] {
  return nodes.map((n, k) => (k === i ? { ...n, smooth: !n.smooth } : n))
}

/** The same profile a wall thinner: what stands in the mould to make the cast hollow. */
export function innerFrom(outer: readonly ProfileNode[], wallMm: number): ProfileNode[] {
  return outer.map((n, i) => ({
    ...n,
    radiusMm: Math.max(0, n.radiusMm - wallMm),
    heightMm:
      i < outer.length - 1 && n.heightMm < outer.at(-1)!.heightMm - wallMm ? n.heightMm + wallMm : n.heightMm,
  }))
}

/** Grid lines a caster can count: a step of 1, 2 or 5, and at most about a dozen over the height. */
export function gridStepMm(extentMm: number): number {
  const rough = extentMm / 12
  const power = 10 ** Math.floor(Math.log10(rough))
  const lead = rough / power
  return power * (lead <= 1 ? 1 : lead <= 2 ? 2 : lead <= 5 ? 5 : 10)
}

import { expect, it } from 'vitest'
import { flattenProfile, revolvedVolumeMl, type ProfileNode } from '../mould'
import { profileFromCsv, profileFromSvg, profileToCsv, profileToSvg } from '.'

const jug: ProfileNode[] = [
  { radiusMm: 0, heightMm: 0, smooth: false },
  { radiusMm: 45, heightMm: 0, smooth: false },
  { radiusMm: 70, heightMm: 60, smooth: true },
  { radiusMm: 40, heightMm: 130, smooth: true },
  { radiusMm: 48, heightMm: 150, smooth: false },
]
const volumeMl = (nodes: readonly ProfileNode[]) => revolvedVolumeMl(flattenProfile(nodes), 1e9)

it('CSV out and in is the same profile', () => {
  expect(profileFromCsv(profileToCsv(jug))).toEqual({ ok: true, nodes: jug, points: 5 })
})

it('SVG out and in holds the same to half a per cent', () => {
  const back = profileFromSvg(profileToSvg(jug))
  expect(back.ok && volumeMl(back.nodes) / volumeMl(jug)).toBeCloseTo(1, 2)
})

it('reads path data with relative moves, shorthand and arcs: a hemisphere from one arc', () => {
  const back = profileFromSvg('M0 0 a50 50 0 0 0 50 -50')
  expect(back.ok && volumeMl(back.nodes) / ((2 / 3) * Math.PI * 125)).toBeCloseTo(1, 2)
  const steps = profileFromSvg('<svg><path class="a" d="m0 0 h40 v-80"/></svg>')
  expect(steps.ok && volumeMl(steps.nodes)).toBeCloseTo((Math.PI * 1600 * 80) / 1000, 6)
})

it('turns a profile that runs from the rim down the right way up', () => {
  const back = profileFromCsv('r,h\n40,80\n40,0\n0,0')
  expect(back.ok && back.nodes[0]).toEqual({ radiusMm: 0, heightMm: 0, smooth: false })
})

it('thins ten thousand points and says how many there were', () => {
  const rows = Array.from({ length: 10_000 }, (_, i) => `${60 + 20 * Math.sin(i / 900)},${i / 50}`).join('\n')
  const back = profileFromCsv(rows)
  expect(back).toMatchObject({ ok: true, points: 10_000 })
  expect(back.ok && back.nodes.length).toBeLessThanOrEqual(200)
})

it.each([
  ['an SVG without a path', profileFromSvg('<svg><circle r="5"/></svg>'), 'no_path'],
  ['broken path data', profileFromSvg('M 0 0 L banana'), 'broken_path'],
  ['a path left of the axis', profileFromSvg('M0 0 L-30 0 L-30 -50'), 'left_of_axis'],
  ['one point', profileFromCsv('10,20'), 'too_few_points'],
  ['a CSV of words', profileFromCsv('radius,height\n10,20\nten,thirty'), 'no_numbers'],
  ['an empty file', profileFromCsv(''), 'no_numbers'],
])('says why %s cannot be read', (_, result, code) => {
  expect(result).toMatchObject({ ok: false, code })
})

import fc from 'fast-check'
import { expect, it } from 'vitest'
import { lookPicture } from './lookPicture'

const share = fc.double({ min: 0, max: 1, noNaN: true })

it('whatever the look, all of its picture is drawn inside the view and no number is missing', () => {
  fc.assert(
    fc.property(
      fc.record({
        level: fc.double({ min: 0.3, max: 1, noNaN: true }),
        bed: fc.constant(0.3),
        dryShare: share,
        heap: fc.double({ min: 0, max: 0.6, noNaN: true }),
        lumps: share,
        gloss: share,
        trail: share,
        bleed: fc.double({ min: 0, max: 0.25, noNaN: true }),
      }),
      (look) => {
        const { lumps, dry, ...paths } = lookPicture(look)
        const numbers = [...dry, ...Object.values(paths).flat()]
          .flatMap((d) => d.match(/-?[\d.]+(?:e-?\d+)?|NaN/g) ?? [])
          .map(Number)
        expect(numbers.every((n) => n >= 0 && n <= 120)).toBe(true)
        for (const { x, y, r } of lumps) {
          expect(x - r).toBeGreaterThan(28)
          expect(x + r).toBeLessThan(92)
          expect(y + r).toBeLessThan(88)
        }
      },
    ),
  )
  expect(
    lookPicture({ level: 1, bed: 1, dryShare: 0, heap: 0, lumps: 1, gloss: 1, trail: 0, bleed: 0 }),
  ).toMatchObject({
    dry: [],
    bleed: '',
    glints: [expect.any(String), expect.any(String)],
  })
})

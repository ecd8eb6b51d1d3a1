import type { Pixel, Spot } from '../../core/field'

/** A pinhole camera over flat ground, of another make than the product's own reckoning: rays, no homography. */
export interface Camera {
  widthPx: number
  heightPx: number
  focalPx: number
  /** Along its axis to the ground, mm. */
  distanceMm: number
  tiltDeg: number
  /** Which way it leans, and how it is turned about its axis. */
  towardsDeg: number
  rollDeg: number
  /** Where its axis meets the ground. */
  at: Spot
  /** By what share of its distance from the middle the corner is moved. */
  lens: number
}

const rad = (deg: number) => (deg * Math.PI) / 180

/** Where a place shows in the photograph. @param belowMm how far under the ground it lies. */
export function seen(camera: Camera, spot: Spot, belowMm = 0): Pixel {
  const [t, a, r] = [rad(camera.tiltDeg), rad(camera.towardsDeg), rad(camera.rollDeg)]
  // Ground coordinates from where the axis meets it, turned so that the camera leans along the first.
  const [dx, dy] = [spot.xMm - camera.at.xMm, spot.yMm - camera.at.yMm]
  const u = dx * Math.cos(a) + dy * Math.sin(a)
  const v = -dx * Math.sin(a) + dy * Math.cos(a)
  // Along the axis, and across it.
  const depth = camera.distanceMm + u * Math.sin(t) + belowMm * Math.cos(t)
  const across = u * Math.cos(t) - belowMm * Math.sin(t)
  const [px, py] = [(camera.focalPx * across) / depth, (camera.focalPx * v) / depth]
  const x = px * Math.cos(a + r) - py * Math.sin(a + r)
  const y = px * Math.sin(a + r) + py * Math.cos(a + r)
  const corner = Math.hypot(camera.widthPx, camera.heightPx) / 2
  const bend = 1 + camera.lens * ((x * x + y * y) / (corner * corner))
  return { x: camera.widthPx / 2 + x * bend, y: camera.heightPx / 2 + y * bend }
}

/** Corners of a rectangle on the ground, as one walks round it. */
export function rectangleAt(middle: Spot, [w, h]: readonly [number, number], turnedDeg: number): Spot[] {
  const [c, s] = [Math.cos(rad(turnedDeg)), Math.sin(rad(turnedDeg))]
  return (
    [
      [-w / 2, -h / 2],
      [w / 2, -h / 2],
      [w / 2, h / 2],
      [-w / 2, h / 2],
    ] as const
  ).map(([x, y]) => ({ xMm: middle.xMm + x * c - y * s, yMm: middle.yMm + x * s + y * c }))
}

export * from './shapes'
export { MOULD_KINDS } from './kinds'
export type { MouldKind } from './kinds'
export { distanceToSpanMm, isInside } from './polyline'
export type { Point } from './polyline'
export {
  MAX_PROFILE_NODES,
  curveHandles,
  depthVolumeCurve,
  findUndercuts,
  flattenProfile,
  profileFault,
  revolvedSurfaceMm2,
  revolvedVolumeMl,
  thinProfile,
  wallThickness,
} from './profile'
export type { ProfileFaultCode, ProfileNode, Undercut, WallThickness } from './profile'
export * from './ways'
export * from './describe'
export * from './working'
export * from './facts'
export * from './thickness'
export * from './leftover'
export * from './extent'

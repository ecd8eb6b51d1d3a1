export { cavityVolumeMl, equivalentThicknessMm } from './volume'
export type { CavityShape } from './volume'
export { MOULD_KINDS } from './kinds'
export type { MouldKind } from './kinds'

export { type Pixel, type Spot } from './geometry'
export { KNOWN_SHEETS, planeOf, type KnownSheet, type PlaneIssueCode, type Scale } from './plane'
export {
  MARK_KINDS,
  MARK_POINTS,
  MIDDLE,
  SHOT_NOTES,
  measure,
  type Mark,
  type MarkKind,
  type MeasureIssue,
  type MeasureIssueCode,
  type MeasureResult,
  type Measured,
  type Shot,
  type ShotNote,
} from './measure'
export {
  LEAST_TRACED,
  MOST_TRACED,
  curveThrough,
  outlineOf,
  type Outline,
  type OutlineResult,
} from './outline'
export {
  FIELD_GROUNDS,
  PRINT_COVER_MM,
  PRINT_FORMS,
  RING_CLEAR_MM,
  coverFor,
  printVolume,
  ringFor,
  type FieldGround,
  type PrintForm,
  type PrintVolume,
  type Ring,
} from './amount'
export {
  FIELD_MIXES,
  MOST_CASTS_A_BAG,
  packFor,
  type FieldMix,
  type Pack,
  type PackInput,
  type PackItem,
  type PackedBag,
  type PrintsOut,
} from './pack'
export { FINENESS_M, coarsened, offsetsM, scaleBarM, type FinenessM, type Position } from './position'
export {
  FRAME_FAULTS,
  lookOf,
  snapped,
  tiltFromDownDeg,
  type FrameFault,
  type FrameLook,
  type Grey,
} from './frame'

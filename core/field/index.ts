export { mean, type Pixel, type Spot } from './geometry'
export { KNOWN_SHEETS, planeOf, type KnownSheet, type PlaneIssueCode, type Scale } from './plane'
export {
  MARK_KINDS,
  MARK_POINTS,
  MIDDLE,
  SHOT_NOTES,
  measure,
  mmPerPixel,
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
  outwardAt,
  shareOfFrame,
  type Outline,
  type OutlineResult,
} from './outline'
export {
  DEPTHS_ENOUGH,
  FIELD_GROUNDS,
  GROUND_FIRMNESS,
  PRINT_COVER_MM,
  PRINT_FORMS,
  RING_CLEAR_MM,
  coverFor,
  pouredOver,
  printVolume,
  ringFor,
  type FieldGround,
  type GroundFirmness,
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
export { FINENESS_M, coarsened, offsetsM, scaleBar, type FinenessM, type Position } from './position'
export {
  FRAME_FAULTS,
  lookOf,
  snapped,
  tiltFromDownDeg,
  type FrameFault,
  type FrameLook,
  type Grey,
} from './frame'

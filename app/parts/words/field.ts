import type { FieldGround } from '#core/field'

export const SOIL_WORDS: Record<FieldGround, string> = {
  sand: 'Sand',
  mud: 'Mud',
  silt: 'Silt',
  snow: 'Snow',
}

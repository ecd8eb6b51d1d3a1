import type { Stage } from '#core/pour'

/** The ground a stage stands on: its material. */
export function groundOf(stage: Stage): string {
  switch (stage) {
    case 'mould':
    case 'weigh':
      return 'ground-before'
    case 'sift':
    case 'soak':
    case 'stir':
    case 'pour':
      return 'ground-wet'
    case 'set':
    case 'demould':
      return 'ground-warm'
    case 'dry':
      return 'ground-dry'
  }
}

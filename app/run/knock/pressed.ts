/** What a window goes by where a press says that something is weighed. */
export type KnownBy =
  /** Typed here. */
  | 'typed'
  /** A scale on this device's own line. */
  | 'own_scale'
  /** The scale that stands under the bowl, heard by all. */
  | 'scale'
  /** What the plan wants, taken for what was weighed. */
  | 'plan'
  /** A scale that is to say something and does not. */
  | 'nothing'

/**
 * How long a window holds back before it acts on a press that every window hears, ms, so that one that knows better comes
 * first; undefined: it leaves the press to others. Only a scale that all hear says the same everywhere: by anything else
 * acts the device that the button was put here from.
 */
export function holdBackMs(by: KnownBy, isHome: boolean): number | undefined {
  switch (by) {
    case 'typed':
    case 'own_scale':
      return isHome ? 0 : undefined
    case 'scale':
      return 250
    case 'plan':
      return isHome ? 600 : undefined
    case 'nothing':
      return undefined
  }
}

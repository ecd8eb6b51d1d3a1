/** Two a second: quick enough to keep the slurry loose, slow enough for a hand (common practice, no source). */
export const BEATS_A_MINUTE = 120

import { z } from 'zod'

/** Text that the database can hold: no zero byte, no half of a character. */
export const text = (max: number) =>
  z
    .string()
    .trim()
    .max(max)
    .refine((s) => !s.includes('\0') && s.isWellFormed(), 'has a character that cannot be kept')
/** One id in one spelling, however it was written. */
export const id = z.uuid().toLowerCase()
/** Counts changes; the database keeps it in 32 bits. */
export const revision = z.int().min(1).max(2_147_483_646)
/** ms since 1970, to the end of this century. */
export const instantMs = z.int().min(0).max(4_102_444_800_000)
export const name = text(120).min(1)

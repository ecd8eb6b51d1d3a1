import { z } from 'zod'

/** Text that the database can hold: no zero byte, no half of a character. */
export const text = (max: number) =>
  z
    .string()
    .trim()
    .max(max)
    .refine((s) => !s.includes('\0') && s.isWellFormed(), 'has a character that cannot be kept')
export const name = text(120).min(1)

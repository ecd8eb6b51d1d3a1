import type { Locator, Page } from '@playwright/test'
import type { PourPlan } from '../../core/pour'

/** Whoever answers the three questions: by touch, by mouse or by keys. */
export interface Hand {
  page: Page
  touch: (what: Locator) => Promise<void>
  type: (field: string | RegExp, text: string) => Promise<void>
}

interface SixPlan {
  answer: (by: Hand) => Promise<void>
  /** What the pour then holds, where the answers say it. */
  cavityMl?: number
  consistency?: number
  ratioMethod: PourPlan['ratioMethod']
}

const tile = ({ page, touch }: Hand, name: RegExp) => touch(page.getByRole('radio', { name }))

/** Six plans by three questions in the demo's workshop, from the bench to a pour on it. */
export const SIX_PLANS: Record<string, SixPlan> = {
  'a mould by water, to islands': {
    answer: async (by) => {
      await tile(by, /pour water into it/)
      await by.type('Water that went in', '3 l')
      await tile(by, /Bag by the door/)
      await tile(by, /By eye/)
      await tile(by, /Islands/)
    },
    cavityMl: 3000,
    ratioMethod: 'by_eye',
  },
  '2 : 1 by cups, a bucket of 2 l': {
    answer: async (by) => {
      await tile(by, /bucket of about/)
      await by.type('It holds', '2 l')
      await tile(by, /Bag by the door/)
      await by.type(/What its bag says/, '2 : 1')
      await by.touch(by.page.getByRole('button', { name: /scoops/ }).first())
      await tile(by, /By cups/)
      await by.type('Your cup holds', '300 ml')
    },
    ratioMethod: 'by_volume',
  },
  '100 ml to 200 g, a tray': {
    answer: async (by) => {
      await tile(by, /box or tray/)
      await by.type('Length inside', '210')
      await by.type('Width inside', '160')
      await by.type('Depth to the fill', '35')
      await tile(by, /Bag by the door/)
      await by.type(/What its bag says/, '100 ml to 200 g')
      await tile(by, /On a scale/)
    },
    cavityMl: 21 * 16 * 3.5,
    consistency: 50,
    ratioMethod: 'weighed',
  },
  'a print in the ground, by cups': {
    answer: async (by) => {
      await tile(by, /print in the ground/)
      await by.type('Across the ring', '220')
      await by.type('Deepest of the print', '12')
      await tile(by, /Bag by the door/)
      await tile(by, /By cups/)
    },
    ratioMethod: 'by_volume',
  },
  'a mould off the shelf, weighed': {
    answer: async (by) => {
      await tile(by, /off the shelf/)
      await tile(by, /Tub 2/)
      await tile(by, /On a scale/)
    },
    ratioMethod: 'weighed',
  },
  'something round, to a lake bed': {
    answer: async (by) => {
      await tile(by, /Something round/)
      await by.type('Across inside', '180')
      await by.type('Depth to the fill', '50')
      await tile(by, /Sack of spring/)
      await tile(by, /By eye/)
      await tile(by, /lake bed/)
    },
    cavityMl: Math.PI * 9 ** 2 * 5,
    ratioMethod: 'by_eye',
  },
}

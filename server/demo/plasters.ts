import type { PlasterClassId } from '../../core/plaster'
import { labelOfClass, type CardLabel } from '../../core/stock'
import type { PlasterInput } from '../../shared/stock'

const label = (classId: PlasterClassId, said: Partial<CardLabel> = {}): CardLabel => ({
  ...labelOfClass(classId),
  ...said,
})

/** The cupboard of Saltmarsh Shed. */
export const DEMO_PLASTERS = {
  pottery: {
    name: 'Pottery plaster, blue sack',
    label: label('pottery', { setMin: 30 }),
    printedRatio: '',
    additions: [],
    note: 'For moulds and slabs.',
  },
  moulding: {
    name: 'Plaster of Paris, paper bag',
    label: label('pop', { consistency: 64 }),
    printedRatio: '64 parts',
    additions: [],
    note: '',
  },
  cement: {
    name: 'Gypsum cement, grey tub',
    label: label('gc'),
    printedRatio: '',
    additions: [],
    note: 'For anything children will hold.',
  },
  hard: {
    name: 'High-strength gypsum cement, red tub',
    label: label('hsgc', { consistency: 32, setMin: 19, expansionPct: 0.24 }),
    printedRatio: '100 : 32',
    additions: [],
    note: '',
  },
  stone: {
    name: 'Dental stone, small tin',
    label: label('dental3', { consistency: 29.9, expansionPct: 0.12 }),
    printedRatio: '30 ml per 100 g',
    additions: [],
    note: 'For the jaw and other fine things.',
  },
  shell: {
    name: 'Shell mix 1 : 1 : 1',
    label: label('investment'),
    printedRatio: '',
    additions: [],
    note: 'Mixed here from plaster of Paris and silica flour.',
  },
} satisfies Record<string, PlasterInput>
export type DemoPlasterKey = keyof typeof DEMO_PLASTERS

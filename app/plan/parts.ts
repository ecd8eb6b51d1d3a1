import { PLAN_PARTS, type PlanPart } from '~/parts/words/planSentence'

/** What can be looked into besides the parts of the sentence. */
export const PLAN_VIEWS = ['remedies', 'deadline', 'times', 'becomes', 'schools', 'recipes'] as const
export type PlanView = (typeof PLAN_VIEWS)[number]
export type Opened = PlanPart | PlanView

export const OPENED_WORDS: Record<Opened, string> = {
  mould: 'Mould',
  plaster: 'Plaster and ratio',
  mixing: 'Mixing',
  filling: 'Filling, step by step',
  bowls: 'Bowls',
  water: 'Water and how warm it is',
  drying: 'Drying',
  remedies: 'What gives time',
  deadline: 'By when one must go',
  times: 'When it sets',
  becomes: 'What it becomes',
  schools: 'Schools',
  recipes: 'Recipes',
}

/** Where what is looked into covers the plan, and nothing of it stands beside it. */
export const PANEL_COVERS = '(max-width: 60rem)'

export const isPart = (opened: Opened | undefined): opened is PlanPart =>
  (PLAN_PARTS as readonly string[]).includes(opened ?? '')

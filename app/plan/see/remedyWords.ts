import { figure, plain } from '~/parts/show/figures'
import type { Remedy } from '#core/pour'
import { counted } from '~/parts/show/counted'
import { HARDLY_S } from '~/parts/mix/pourTime'
import { durationText, minutesText } from '~/parts/show/time'

interface Show {
  temp: (tempC: number) => string
  strength: (strengthMPa: number) => string
}

/** What the button says: what is done. */
function takeWords({ change }: Remedy, show: Show): string {
  switch (change.id) {
    case 'colder_water':
      return `Water at ${show.temp(change.waterTempC)}`
    case 'shorter_stir':
      return `Stir for ${durationText(change.stirS)}`
    case 'shorter_soak':
      return `Soak for ${durationText(change.soakS)}`
    case 'smaller_bowls':
      return counted(change.count, 'bowl')
    case 'more_hands':
      return `${change.hands} people`
    case 'thinner':
      return `Thinner: ${figure(change.consistency)}`
    case 'retarder':
      return `Borax, ${plain(change.additions.at(-1)!.pct)} %`
  }
}

/** What it costs, with figures where they move. */
function costWords({ change, demouldS, dryMPa, bowls, lumps }: Remedy, show: Show): string {
  const costs: string[] = []
  if (bowls.to > bowls.from) costs.push(`${counted(bowls.to, 'bowl')}, each with its own clock`)
  if (change.id === 'more_hands') costs.push('somebody has to be there')
  if (lumps) costs.push('more lumps may stay')
  const laterS = demouldS.to - demouldS.from
  if (laterS >= 60) costs.push(`comes out ${durationText(laterS)} later`)
  if (dryMPa.to < 0.98 * dryMPa.from)
    costs.push(`${show.strength(dryMPa.to)} instead of ${show.strength(dryMPa.from)} when dry`)
  if (change.id === 'retarder') costs.push('a retarder costs strength and makes the clock less sure')
  const said = costs.join('; ')
  return said === '' ? 'Costs nothing to speak of.' : `${said.charAt(0).toUpperCase()}${said.slice(1)}.`
}

/** What is left to pour in, or how much it is short of any. */
function leftWords(windowS: number): string {
  if (windowS < -HARDLY_S) return `${minutesText(-windowS)} short`
  return windowS < HARDLY_S ? 'hardly any time to pour' : `${minutesText(windowS)} to pour`
}

export function remedyWords(remedy: Remedy, show: Show): { take: string; gain: string; cost: string } {
  const [from, to] = [leftWords(remedy.pourS.from), leftWords(remedy.pourS.to)]
  const gain = from === to ? 'Less to do in the same time' : to
  return {
    take: takeWords(remedy, show),
    gain: `${gain.charAt(0).toUpperCase()}${gain.slice(1)}`,
    cost: costWords(remedy, show),
  }
}

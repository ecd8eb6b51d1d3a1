import { batchOf, type EventBody } from '#core/pour'
import { plain } from '~/parts/show/figures'
import { RECALLED_WORDS } from './asks'
import { TOLD_WORDS } from './told'
import { CAUSE_WORDS } from './causes'
import { faultText } from './faults'
import { TASK_WORDS } from './finish'
import { CORRECTION_WORDS } from './mix'
import { DAMAGE_WORDS, PREPARATION_WORDS, TACTIC_WORDS, type MixShow } from './mould'
import {
  CLEAN_UP_WORDS,
  EXPOSURE_WORDS,
  LEAK_WORDS,
  SOFT_WORK_WORDS,
  TOUCH_WORDS,
  VERDICT_WORDS,
  WEIGHED_WORDS,
} from './pour'
import { pieceNumbers } from './pieces'
import { UPKEEP_WORDS } from './upkeep'

/** Which bowl, where there is more than the first. */
function bowl(body: EventBody): string {
  const batch = batchOf(body)
  return batch > 0 ? `, bowl ${batch + 1}` : ''
}

/** Which of several casts, where it is not all of them. */
const of = ({ pieces }: { pieces?: number[] }) => (pieces ? `, ${pieceNumbers(pieces)}` : '')

/** One event as a line of the record; quantities are formatted by the caller. */
export function eventWords(body: EventBody, show: MixShow): string {
  const { mass, temp, volume } = show
  switch (body.type) {
    case 'prepared':
      return PREPARATION_WORDS[body.item]
    case 'mould_ready':
      return 'Mould ready'
    case 'weighed':
      return body.scoops
        ? `${plain(body.scoops.count)} × ${volume(body.scoops.measureMl)} of ${WEIGHED_WORDS[body.what]}, ${mass(body.massG)}${bowl(body)}`
        : `Weighed ${mass(body.massG)} of ${WEIGHED_WORDS[body.what]}${bowl(body)}`
    case 'powder_follows':
      return body.follows ? 'Plaster is weighed to the water' : 'Plaster stays as planned'
    case 'scale_doubted':
      return 'The scale’s masses are not to be trusted'
    case 'plaster_was':
      return `It was made of ${body.plaster.bag?.name || body.plaster.name}`
    case 'thermometer_told':
      return `${body.device}, ${body.channel.slice(1)}: ${TOLD_WORDS[body.is].said}`
    case 'scale_failed':
      return 'The scale failed: measured by volume from here'
    case 'corrected':
      return `${CORRECTION_WORDS[body.how]}: ${mass(body.massG)}${bowl(body)}`
    case 'slurry_checked':
      return `Slurry checked: ${mass(body.massG)} in ${volume(body.volumeMl)}${bowl(body)}`
    case 'ran_short':
      return `Ran short by about ${volume(body.missingMl)}: another bowl`
    case 'sift_started':
      return `Powder meets water${bowl(body)}`
    case 'sifted':
      return `Powder all in${bowl(body)}`
    case 'soaked':
      return 'Soaked; began to stir'
    case 'stirred':
      return `Stirred (${{ gentle: 'gently by hand', hand: 'by hand', whisk: 'whisk', drill: 'drill' }[body.manner]})`
    case 'extraction_checked':
      return 'Extraction seen and heard'
    case 'layer_keyed':
      return 'Layer below scored'
    case 'face_coated':
      return 'First coat brushed on'
    case 'bond_coated':
      return 'Bonding coat tapped in'
    case 'squeezed':
      return 'Squeezed over every face'
    case 'part_filled':
      return 'Part filled and tapped'
    case 'thickened':
      return `A peak stood${bowl(body)}`
    case 'reinforced':
      return `Reinforcement laid in${bowl(body)}`
    case 'built':
      return `Layer built up${bowl(body)}`
    case 'turned':
      return `Turned until it stayed${bowl(body)}`
    case 'roughened':
      return `Roughened for the next${bowl(body)}`
    case 'vibrated':
      return 'Vibrated; the air is out'
    case 'levelled':
      return 'Levelled; left still'
    case 'own_done':
      return `A step of one’s own${bowl(body)}`
    case 'air_freed':
      return `Against air: ${TACTIC_WORDS[body.how]}`
    case 'leaked':
      return `It leaked about ${volume(body.lostMl)}; stopped with ${LEAK_WORDS[body.plug].toLowerCase()}`
    case 'leftover_poured':
      return `About ${volume(body.fillMl)} left over went into a small mould`
    case 'left_over':
      return `Left over: ${volume(body.volumeMl)}`
    case 'worked_soft':
      return SOFT_WORK_WORDS[body.work]
    case 'cleaned_up':
      return CLEAN_UP_WORDS[body.what]
    case 'poured':
      return 'Mould full'
    case 'tapped':
      return 'Tapped; left still'
    case 'touch':
      return `${TOUCH_WORDS[body.cue]}${!body.seen ? ': not yet' : body.already ? ': already' : ''}`
    case 'temperature':
      return `${temp(body.tempC)} (${body.place})`
    case 'demoulded':
      return `Out of the mould, ${body.outcome}${body.gripped ? '; it gripped' : ''}${of(body)}`
    case 'mould_damage':
      return `On the mould: ${DAMAGE_WORDS[body.kind].toLowerCase()}`
    case 'weighing':
      return `Weighed ${mass(body.massG)}${of(body)}`
    case 'dries_at':
      return `Dries ${body.spot.name || 'elsewhere'}, ${EXPOSURE_WORDS[body.lies].toLowerCase()}`
    case 'felt_dry':
      return body.clammy ? 'Felt cold and clammy' : 'No longer cold and clammy'
    case 'finish_done':
      return TASK_WORDS[body.task].name
    case 'kept_up':
      return UPKEEP_WORDS[body.what].did
    case 'defect':
      return `${faultText(body, show)}${of(body)}`
    case 'recalled':
      return RECALLED_WORDS[body.said].said
    case 'cause_kept':
      return `To be kept in mind: ${CAUSE_WORDS[body.cause].name.toLowerCase()}`
    case 'cause_mended':
      return `Mended: ${CAUSE_WORDS[body.cause].name.toLowerCase()}`
    case 'photographed':
      return `${body.caption ? `Photographed: ${body.caption}` : 'Photographed'}${of(body)}`
    case 'finished':
      return `${VERDICT_WORDS[body.verdict]}${of(body)}${body.reason ? `: ${body.reason}` : ''}`
    case 'note':
      return body.text
    case 'plan_holds':
      return 'What was weighed for the earlier plan holds for this one'
    case 'void':
      return 'Taken back'
  }
}

import type { Migration } from 'kysely'
import * as workshop from './20261123T2040_workshop'
import * as pours from './20261123T2041_pours'
import * as changes from './20261123T2042_changes'
import * as moulds from './20261124T0001_moulds'
import * as stock from './20261125T0800_stock'
import * as figures from './20261126T0320_figures'
import * as workshops from './20261126T0600_workshops'
import * as devices from './20261126T1010_devices'
import * as settling from './20261126T1340_settling'
import * as photos from './20261126T1910_photos'
import * as learning from './20261126T1940_learning'
import * as upkeep from './20261126T2300_upkeep'
import * as pieces from './20261129T1630_pieces'
import * as heeds from './20261129T1650_heeds'
import * as definers from './20261129T2030_definers'
import * as figureSums from './20261130T0010_figure_sums'
import * as scoop from './20261130T1620_scoop'
import * as workshopsHere from './20261201T0200_workshops_here'
import * as people from './20261201T0500_people'
import * as accounts from './20261201T0700_accounts'
import * as hands from './20261201T0800_hands'
import * as deviceKeys from './20261201T0900_device_keys'
import * as bundleJobs from './20261201T1000_bundle_jobs'
import * as held from './20261201T1100_held'
import * as seenFrom from './20261201T1200_seen_from'
import * as finds from './20261201T1300_finds'

/** In order of their names. A migration that has landed is never edited; a new one follows it. */
export const MIGRATIONS: Record<string, Migration> = {
  '20261123T2040_workshop': workshop,
  '20261123T2041_pours': pours,
  '20261123T2042_changes': changes,
  '20261124T0001_moulds': moulds,
  '20261125T0800_stock': stock,
  '20261126T0320_figures': figures,
  '20261126T0600_workshops': workshops,
  '20261126T1010_devices': devices,
  '20261126T1340_settling': settling,
  '20261126T1910_photos': photos,
  '20261126T1940_learning': learning,
  '20261126T2300_upkeep': upkeep,
  '20261129T1630_pieces': pieces,
  '20261129T1650_heeds': heeds,
  '20261129T2030_definers': definers,
  '20261130T0010_figure_sums': figureSums,
  '20261130T1620_scoop': scoop,
  '20261201T0200_workshops_here': workshopsHere,
  '20261201T0500_people': people,
  '20261201T0700_accounts': accounts,
  '20261201T0800_hands': hands,
  '20261201T0900_device_keys': deviceKeys,
  '20261201T1000_bundle_jobs': bundleJobs,
  '20261201T1100_held': held,
  '20261201T1200_seen_from': seenFrom,
  '20261201T1300_finds': finds,
}

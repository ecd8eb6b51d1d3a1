import type { Air } from '#core/drying'
import type { Settings } from '~~/shared/contracts'
import type { PlaceKind } from '~~/shared/learning'

export const PLACE_KIND_WORDS: Record<PlaceKind, string> = {
  still: 'Still room',
  fan: 'Under a fan',
  breeze: 'In a breeze',
  cabinet: 'Warm cabinet',
  outdoors: 'Outdoors',
}

/** Each kind of place as one usually meets it, from the workshop's own room (estimates, no source). */
export const USUAL_PLACE: Record<PlaceKind, (room: Settings) => { air: Air; nightAir: Air | null }> = {
  still: (room) => ({
    air: { tempC: room.roomTempC, rhPct: room.roomRhPct, speedMS: room.airSpeedMS },
    nightAir: null,
  }),
  fan: (room) => ({ air: { tempC: room.roomTempC, rhPct: room.roomRhPct, speedMS: 1.5 }, nightAir: null }),
  breeze: (room) => ({ air: { tempC: room.roomTempC, rhPct: room.roomRhPct, speedMS: 0.8 }, nightAir: null }),
  cabinet: () => ({ air: { tempC: 40, rhPct: 20, speedMS: 1 }, nightAir: null }),
  outdoors: () => ({
    air: { tempC: 20, rhPct: 55, speedMS: 1.5 },
    nightAir: { tempC: 11, rhPct: 85, speedMS: 0.5 },
  }),
}

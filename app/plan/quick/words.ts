import { Amphora, Droplets, Flame, Footprints, Gem, Landmark, PaintBucket, Ruler, Shapes } from '@lucide/vue'
import { Box, Circle, CupSoda, Eye, Palette, Scale } from '@lucide/vue'
import type { Component } from 'vue'
import type { RatioMethod } from '#core/mix'
import type { PlasterClassId } from '#core/plaster'
import type { QuickFill } from './answers'
import ToothSign from './ToothSign.vue'

interface Tile {
  icon: Component
  name: string
  how: string
}

export const FILL_WORDS: Record<QuickFill, Tile> = {
  shelf: { icon: Shapes, name: 'A mould off the shelf', how: 'it knows what it holds' },
  water: {
    icon: Droplets,
    name: 'I can pour water into it',
    how: 'measure what goes in, then tip it out and dry it',
  },
  box: { icon: Box, name: 'A box or tray', how: 'three measures inside' },
  round: { icon: Circle, name: 'Something round', how: 'across and deep' },
  ground: { icon: Footprints, name: 'A print in the ground', how: 'with a ring round it' },
  bucket: { icon: PaintBucket, name: 'A bucket of about…', how: 'so much mix, for whatever it is' },
}

/** What the first mould is kept as where nothing is on the shelf yet, unless it is called otherwise. */
export const FIRST_MOULD = 'First mould'

export const CLASS_SIGNS: Record<PlasterClassId, Component> = {
  pop: Palette,
  pottery: Amphora,
  gc: Landmark,
  lowexp: Ruler,
  hsgc: Gem,
  dental2: ToothSign,
  dental3: ToothSign,
  dental4: ToothSign,
  investment: Flame,
}

export const MEASURE_WORDS: Record<RatioMethod, Tile> = {
  weighed: { icon: Scale, name: 'On a scale', how: 'surest: within a fiftieth' },
  by_volume: { icon: CupSoda, name: 'By cups', how: 'the same cup for both; powder packs as it likes' },
  by_eye: { icon: Eye, name: 'By eye', how: 'sift until it looks right' },
}

import { definePreset } from '@primeuix/themes'
import Aura from '@primeuix/themes/aura'
import { markRaw } from 'vue'
export default markRaw(definePreset(Aura, {}))

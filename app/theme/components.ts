import { definePreset } from '@primeuix/themes'
import badge from '@primeuix/themes/aura/badge'
import button from '@primeuix/themes/aura/button'
import checkbox from '@primeuix/themes/aura/checkbox'
import datatable from '@primeuix/themes/aura/datatable'
import dialog from '@primeuix/themes/aura/dialog'
import inputtext from '@primeuix/themes/aura/inputtext'
import menu from '@primeuix/themes/aura/menu'
import popover from '@primeuix/themes/aura/popover'
import progressbar from '@primeuix/themes/aura/progressbar'
import ripple from '@primeuix/themes/aura/ripple'
import select from '@primeuix/themes/aura/select'
import selectbutton from '@primeuix/themes/aura/selectbutton'
import slider from '@primeuix/themes/aura/slider'
import textarea from '@primeuix/themes/aura/textarea'
import togglebutton from '@primeuix/themes/aura/togglebutton'
import toggleswitch from '@primeuix/themes/aura/toggleswitch'
import virtualscroller from '@primeuix/themes/aura/virtualscroller'

/** The tokens of the library's components that are used, ours laid over. */
export const componentTokens = definePreset(
  {
    components: {
      badge,
      button,
      checkbox,
      datatable,
      dialog,
      inputtext,
      menu,
      popover,
      progressbar,
      ripple,
      select,
      selectbutton,
      slider,
      textarea,
      togglebutton,
      toggleswitch,
      virtualscroller,
    },
  },
  {
    components: {
      button: {
        root: {
          paddingX: '1.15rem',
          paddingY: '0.75rem',
          borderRadius: '999px',
          label: { fontWeight: '650' },
        },
      },
      slider: {
        root: {},
        track: { size: '10px', borderRadius: '5px', background: '#d5cebf' },
        handle: {
          width: '44px',
          height: '44px',
          background: '#13262c',
          hoverBackground: '#13262c',
          content: {
            width: '18px',
            height: '18px',
            background: '#96cad1',
            hoverBackground: '#96cad1',
            shadow: 'none',
          },
        },
      },
      datatable: {
        headerCell: { background: 'transparent', padding: '0.6rem 0.75rem' },
        row: { background: 'transparent' },
        bodyCell: { padding: '0.6rem 0.75rem' },
      },
    },
  },
)

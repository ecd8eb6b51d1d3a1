import { definePreset } from '@primeuix/themes'
import base from '@primeuix/themes/aura/base'
import { markRaw } from 'vue'
import { componentTokens } from './components'

/**
 * Our tokens laid over the component library's, so that its stock look is gone. Meaning: docs/look.md. Those of its
 * components are in `components.ts`.
 */
const preset = markRaw(
  definePreset(base, componentTokens, {
    primitive: {
      borderRadius: { none: '0', xs: '6px', sm: '10px', md: '14px', lg: '18px', xl: '22px' },
    },
    semantic: {
      transitionDuration: '0.12s',
      focusRing: { width: '3px', style: 'solid', color: 'var(--ring)', offset: '2px', shadow: 'none' },
      primary: {
        50: '#eef6f7',
        100: '#d6e9ec',
        200: '#b5d8dd',
        300: '#96cad1',
        400: '#5d9aa6',
        500: '#1b4c5b',
        600: '#1b4c5b',
        700: '#153d49',
        800: '#112f39',
        900: '#0f272f',
        950: '#0a1d23',
      },
      formField: {
        paddingX: '0.85rem',
        paddingY: '0.7rem',
        borderRadius: '{border.radius.md}',
        focusRing: { width: '3px', style: 'solid', color: 'var(--ring)', offset: '1px', shadow: 'none' },
      },
      colorScheme: {
        light: {
          surface: {
            0: '#fcfaf5',
            50: '#f6f3ec',
            100: '#f2eee5',
            200: '#e6e0d3',
            300: '#d5cebf',
            400: '#938d7e',
            500: '#70766d',
            600: '#46575c',
            700: '#31454a',
            800: '#13262c',
            900: '#0f272f',
            950: '#0a1d23',
          },
          primary: {
            color: '{primary.500}',
            contrastColor: '#fcfaf5',
            hoverColor: '{primary.700}',
            activeColor: '{primary.800}',
          },
          formField: {
            background: '#ffffff',
            borderColor: '#837c6b',
            hoverBorderColor: '#13262c',
            focusBorderColor: '#13262c',
            invalidBorderColor: '#b9310f',
            color: '#13262c',
            placeholderColor: '#5d6668',
            shadow: 'none',
          },
          text: { color: '#13262c', mutedColor: '#46575c' },
        },
        dark: {
          surface: {
            0: '#ffffff',
            50: '#e8e2d4',
            100: '#d9d4c8',
            200: '#b4bdbd',
            300: '#9aa5a5',
            400: '#849192',
            500: '#5f6d71',
            600: '#425056',
            700: '#2c393e',
            800: '#1c2a2f',
            900: '#131b1e',
            950: '#0b1113',
          },
          primary: {
            color: '#9fd0d8',
            contrastColor: '#0b1113',
            hoverColor: '#b5d8dd',
            activeColor: '#d6e9ec',
          },
          formField: {
            background: '#0b1113',
            borderColor: '#849192',
            hoverBorderColor: '#e8e2d4',
            focusBorderColor: '#e8e2d4',
            invalidBorderColor: '#ff9d80',
            color: '#e8e2d4',
            placeholderColor: '#b4bdbd',
            shadow: 'none',
          },
          text: { color: '#e8e2d4', mutedColor: '#b4bdbd' },
        },
      },
    },
  }),
)

export const theme = {
  preset,
  options: { darkModeSelector: '[data-look="dim"]', cssLayer: { name: 'primevue', order: 'base, primevue' } },
}

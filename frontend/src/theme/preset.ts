import { definePreset } from '@primeuix/themes'
import Aura from '@primeuix/themes/aura'

const heather = {
  50: '#f7f2f9',
  100: '#efe7f2',
  200: '#dccbe4',
  300: '#c3a0d4',
  400: '#9673aa',
  500: '#6d4a7e',
  600: '#5f406e',
  700: '#50365d',
  800: '#402b4b',
  900: '#31213a',
  950: '#221629',
}

const paperSurface = {
  0: '#fbf9f4',
  50: '#f7f4ed',
  100: '#f3efe6',
  200: '#e6e1d8',
  300: '#d3cdc3',
  400: '#b9b4ac',
  500: '#8f8a84',
  600: '#6e6a66',
  700: '#4e4945',
  800: '#3a3530',
  900: '#2b2622',
  950: '#1b1815',
}

const nightSurface = { ...paperSurface, 0: '#f3eee4', 900: '#2b2622', 950: '#211d1a' }

/** Our own preset: heather for what is acted on, hairlines, a 3 px radius, dense fields. */
export const heath = definePreset(Aura, {
  primitive: {
    borderRadius: { none: '0', xs: '2px', sm: '3px', md: '3px', lg: '3px', xl: '3px' },
  },
  components: {
    // Choices not taken are still read.
    togglebutton: {
      colorScheme: {
        light: { root: { color: '#65605c', hoverColor: '#2b2622' } },
        dark: { root: { color: '#c4beb6', hoverColor: '#f3eee4' } },
      },
    },
  },
  semantic: {
    primary: heather,
    formField: {
      paddingX: '8px',
      paddingY: '4px',
      sm: { paddingX: '6px', paddingY: '3px', fontSize: '12px' },
      shadow: 'none',
    },
    colorScheme: {
      light: {
        surface: paperSurface,
        primary: { color: '{primary.500}', hoverColor: '{primary.600}', activeColor: '{primary.700}' },
        text: { color: '#2b2622', mutedColor: '#65605c' },
        formField: { placeholderColor: '#65605c' },
      },
      dark: {
        surface: nightSurface,
        primary: { color: '{primary.300}', hoverColor: '{primary.200}', contrastColor: '#211d1a' },
      },
    },
  },
})

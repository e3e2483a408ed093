import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

const plain = { variant: 'plain', density: 'compact', hideDetails: true } as const

/** Vuetify as it is ours: its themes carry the few colours it draws with itself, all else is in theme.css. */
export const ourVuetify = () =>
  createVuetify({
    icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
    theme: {
      defaultTheme: 'enamel',
      themes: {
        enamel: {
          dark: false,
          colors: { background: '#e6e9ee', surface: '#fbfcfe', primary: '#1e3f94', error: '#a3152a' },
        },
        iron: {
          dark: true,
          colors: { background: '#15171a', surface: '#1e2125', primary: '#b7c8f5', error: '#ff8f96' },
        },
      },
    },
    defaults: {
      VBtn: { variant: 'flat', ripple: false },
      VTextField: plain,
      VSelect: { ...plain, menuProps: { maxHeight: 420 } },
      VAutocomplete: { ...plain, autoSelectFirst: true },
      VCombobox: plain,
    },
  })

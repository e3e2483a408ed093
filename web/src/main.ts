import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/bricolage-grotesque'
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'
import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'
import 'vuetify/styles/core'
import { Refusal } from './api/client'
import App from './app/App.vue'
import { router } from './app/router'
import './app/theme.css'

const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: {
    defaultTheme: 'enamel',
    themes: {
      enamel: {
        dark: false,
        colors: { background: '#e6e9ee', surface: '#fbfcfe', primary: '#1e3f94', error: '#a3152a' },
      },
      iron: { dark: true, colors: { background: '#15171a', surface: '#1e2125', primary: '#b7c8f5', error: '#ff8f96' } },
    },
  },
  defaults: {
    VBtn: { variant: 'flat', ripple: false },
    VAutocomplete: { variant: 'plain', density: 'compact', hideDetails: true, autoSelectFirst: true },
    VCombobox: { variant: 'plain', density: 'compact', hideDetails: true },
  },
})

const queries = new QueryClient({
  defaultOptions: {
    // the server may be this machine, which needs no network to be reached
    mutations: { networkMode: 'always' },
    queries: {
      networkMode: 'always',
      retry: (tries, failure) => !(failure instanceof Refusal) && tries < 20,
      retryDelay: 2000,
      refetchOnWindowFocus: false,
    },
  },
})

createApp(App).use(router).use(vuetify).use(VueQueryPlugin, { queryClient: queries }).mount('#app')

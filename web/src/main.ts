import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/bricolage-grotesque'
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'
import 'vuetify/styles/core'
import { Refusal } from './api/client'
import App from './app/App.vue'
import { keepPage } from './app/offline'
import { ourVuetify } from './kit/vuetify'
import { router } from './app/router'
import './app/tokens.css'
import './app/theme.css'

const vuetify = ourVuetify()
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
keepPage()

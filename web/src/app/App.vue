<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { onKeyStroke } from '@vueuse/core'
import { onScopeDispose, ref, watchEffect } from 'vue'
import { useRouter } from 'vue-router'
import { useTheme } from 'vuetify'
import { whenBack } from '../api/server'
import FinderPanel from './FinderPanel.vue'
import KeysPanel from './KeysPanel.vue'
import NoticeBar from './NoticeBar.vue'
import { usePreferences, useStoredPreferences } from './preferences'
import Rail from './Rail.vue'
import ServerBar from './ServerBar.vue'
import SettingsPanel from './SettingsPanel.vue'
import { stations } from './stations'
import TopBar from './TopBar.vue'
import { sure } from '../kit/sure'

useStoredPreferences()
const queries = useQueryClient()
onScopeDispose(whenBack(() => void queries.invalidateQueries()))
const { preferences } = usePreferences()
const theme = useTheme()
watchEffect(() => theme.change(preferences.value.theme))

const finding = ref(false)
const keys = ref(false)
const settings = ref(false)
const router = useRouter()

const typing = (event: KeyboardEvent) =>
  event.target instanceof HTMLElement &&
  event.target.closest('input:not([type=radio]), textarea, select, [role=combobox]')

onKeyStroke(
  (event) => event.key.length === 1 && '01234567/?'.includes(event.key),
  (event) => {
    if (!preferences.value.single_keys || event.ctrlKey || event.metaKey || event.altKey || typing(event)) return
    if (finding.value || keys.value || settings.value) return
    event.preventDefault()
    if (event.key === '/') finding.value = true
    else if (event.key === '?') keys.value = true
    else void router.push(event.key === '0' ? '/' : sure(stations[Number(event.key) - 1]).path)
  },
)
</script>

<template>
  <v-app class="ravska">
    <a href="#main" class="skip">Skip to the station</a>
    <Rail @find="finding = true" @keys="keys = true" @settings="settings = true" />
    <TopBar @find="finding = true" @settings="settings = true" />
    <div id="main" class="station">
      <ServerBar />
      <router-view v-slot="{ Component, route }">
        <component :is="Component" :key="route.path" />
      </router-view>
    </div>
    <FinderPanel v-model="finding" />
    <KeysPanel v-model="keys" />
    <SettingsPanel v-model="settings" />
    <NoticeBar />
  </v-app>
</template>

<style scoped>
.station {
  margin-left: 104px;
  padding: var(--s-20) var(--s-24) 40px;
  max-width: 1320px;
}
.skip {
  position: fixed;
  left: -999px;
}
.skip:focus {
  left: 120px;
  top: 8px;
  background: var(--plate);
  padding: var(--s-8);
  z-index: 10;
}
@media (max-width: 720px) {
  .station {
    margin: 0;
    padding: var(--s-14) var(--s-14) 84px;
  }
}
</style>

import { createPinia } from 'pinia'
import PrimeVue from 'primevue/config'
import Tooltip from 'primevue/tooltip'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import { heath } from './theme/preset'
import './theme/tokens.css'

createApp(App)
  .use(createPinia())
  .use(router)
  .use(PrimeVue, { theme: { preset: heath, options: { darkModeSelector: '.night' } } })
  .directive('tooltip', Tooltip)
  .mount('#app')

import '@fontsource/atkinson-hyperlegible/latin-400.css'
import '@fontsource/atkinson-hyperlegible/latin-700.css'
import '@fontsource/bitter/latin-500.css'
import '@fontsource/bitter/latin-700.css'
import 'element-plus/theme-chalk/dark/css-vars.css'
import './app/theme.scss'
import { createApp } from 'vue'
import { createPinia } from 'pinia'
import { VueQueryPlugin } from '@tanstack/vue-query'
import App from './app/App.vue'
import { registerSW } from 'virtual:pwa-register'
import { keepLast } from './app/lasting'
import { queries } from './app/queries'
import { router } from './app/router'

const client = queries()
keepLast(client)
registerSW({ immediate: true })
createApp(App)
  .use(createPinia())
  .use(VueQueryPlugin, { queryClient: client })
  .use(router)
  .mount('#app')

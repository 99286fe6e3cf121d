import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/atkinson-hyperlegible-mono'
import './theme/base.css'

import { createPinia } from 'pinia'
import { createApp } from 'vue'

import App from './App.vue'
import { catchAll } from './failed'
import { router } from './router'
import { vuetify } from './theme/vuetify'

const app = createApp(App)
catchAll(app)
app.use(createPinia()).use(router).use(vuetify).mount('#app')

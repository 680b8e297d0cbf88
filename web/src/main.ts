import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/atkinson-hyperlegible-mono'
import './theme/index.scss'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { afterFirstView } from './afterFirstView'
import { readyDates } from './composables/words'
import { keepOnDevice } from './newVersion'
import { onceDrawn } from './onceDrawn'
import { makeRouter } from './router'

const app = createApp(App)
app.use(createPinia())
const router = makeRouter()
app.use(router)
await onceDrawn()
app.mount('#app')
setTimeout(readyDates)
void afterFirstView(router).then(() => keepOnDevice(router))

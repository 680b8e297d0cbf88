import type { Router } from 'vue-router'
import { registerSW } from 'virtual:pwa-register'

/**
 * Keeps the application on the device, so that it starts without a line. A newer version waits until no
 * visit is open: nobody’s screen changes in the middle of one.
 */
export function keepOnDevice(router: Router): void {
  let waits = false
  const take = registerSW({
    onNeedRefresh() {
      waits = true
      takeBetweenVisits()
    },
  })
  const takeBetweenVisits = () => {
    if (!waits || router.currentRoute.value.name === 'visit') return
    waits = false
    void take(true)
  }
  router.afterEach(takeBetweenVisits)
}

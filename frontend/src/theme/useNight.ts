import { createSharedComposable, useLocalStorage, usePreferredDark } from '@vueuse/core'
import { computed, watchEffect } from 'vue'

/** Whether it is shown by night: as was chosen on this device, else as its system has it. */
export const useNight = createSharedComposable(() => {
  const chosen = useLocalStorage<boolean | null>('heathrise-night', null, { serializer: { read: (text) => text === 'true', write: String } })
  const dark = usePreferredDark()
  const night = computed({ get: () => chosen.value ?? dark.value, set: (now) => (chosen.value = now) })
  watchEffect(() => document.documentElement.classList.toggle('night', night.value))
  return night
})

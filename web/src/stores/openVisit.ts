import { shallowRef } from 'vue'

/** Id of the visit that is open, which sends its own entries; empty where none is. */
export const openVisitId = shallowRef('')

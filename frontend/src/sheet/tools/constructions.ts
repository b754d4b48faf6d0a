import { useLocalStorage } from '@vueuse/core'

/** What new walls are built of: between rooms, and on the outside. */
export const innerConstruction = useLocalStorage('heathrise-inner', 'plasterboard')
export const outerConstruction = useLocalStorage('heathrise-outer', 'brick-cavity')
/** Which of the two a wall is that is drawn by itself. */
export const drawsOuter = useLocalStorage('heathrise-draws-outer', false)

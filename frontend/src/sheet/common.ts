import { ref, shallowRef } from 'vue'
import type { Point } from '@/api/types'

/** Points that two storeys have in common, pressed on one and then on the other. */
export const common = shallowRef<{ floor: string; at: Point }[]>([])
/** By how much the distance between them differs from one storey to the other. */
export const commonTold = ref('')

import { useLocalStorage } from '@vueuse/core'

/** Metres and Celsius, or feet and Fahrenheit: one switch for every figure on the screen. */
export const imperial = useLocalStorage('heathrise-imperial', false)

const FEET_PER_METRE = 3.280839895

export function length(metres: number, digits = 1): string {
  return imperial.value
    ? `${(metres * FEET_PER_METRE).toFixed(digits)} ft`
    : `${metres.toFixed(digits)} m`
}

export function lengthUnit(): string {
  return imperial.value ? 'ft' : 'm'
}

export function toShown(metres: number): number {
  return imperial.value ? metres * FEET_PER_METRE : metres
}

export function fromShown(shown: number): number {
  return imperial.value ? shown / FEET_PER_METRE : shown
}

export function temperature(celsius: number): string {
  return imperial.value ? `${Math.round(celsius * 1.8 + 32)} °F` : `${Math.round(celsius)} °C`
}

export function percent(share: number | null | undefined): string {
  if (share === null || share === undefined) return '-'
  // A share just short of the whole is not called the whole.
  const rounded = share < 1 ? Math.min(99, Math.round(share * 100)) : 100
  return `${rounded} %`
}

export function dbm(level: number | null | undefined): string {
  return level === null || level === undefined ? 'none' : `${level.toFixed(0)} dBm`
}

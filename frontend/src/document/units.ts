import { useLocalStorage } from '@vueuse/core'

/** Metres and Celsius, or feet and Fahrenheit: one switch for every figure on the screen. */
export const imperial = useLocalStorage('heathrise-imperial', false)

const FEET_PER_METRE = 3.280839895

export function length(metres: number, digits = 1): string {
  return imperial.value
    ? `${(metres * FEET_PER_METRE).toFixed(digits)} ft`
    : `${metres.toFixed(digits)} m`
}

export function area(squareMetres: number): string {
  return imperial.value
    ? `${(squareMetres * FEET_PER_METRE ** 2).toFixed(0)} ft²`
    : `${squareMetres.toFixed(1)} m²`
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

const FIGURE = /(-?\d+(?:\.\d+)?)\u00a0(m|°C)(?![\w/²³])/g

/** A sentence with its lengths and temperatures in the units of the switch. */
export function inUnits(sentence: string): string {
  return imperial.value
    ? sentence.replace(FIGURE, (_, figure: string, unit: string) => {
        const digits = figure.split('.')[1]?.length ?? 0
        return unit === 'm' ? length(Number(figure), digits) : temperature(Number(figure))
      })
    : sentence
}

/** A bare figure with its unit, converted where the unit is a length. */
export function measured(figure: number, unit: string): string {
  const [first, ...rest] = unit.split(' ')
  return first === 'm' ? [length(figure), ...rest].join(' ') : `${Number(figure.toFixed(1))} ${unit}`
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

/** A speed as it is said: 2.5 Gb/s, 100 Mb/s. */
export function speed(mbps: number): string {
  return mbps >= 1000 ? `${Number((mbps / 1000).toFixed(1))} Gb/s` : `${Math.round(mbps)} Mb/s`
}

/** What something is more or less by, with its sign. */
export function signed(value: number, digits = 0): string {
  const size = Math.abs(value).toLocaleString('en', { minimumFractionDigits: digits, maximumFractionDigits: digits })
  return `${value > 0 ? '+' : value < 0 ? '\u2212' : ''}${size}`
}

/** A sum as it is printed, to the cent. */
export function money(sum: number): string {
  return sum.toLocaleString('en', { minimumFractionDigits: 2, maximumFractionDigits: 2 })
}

/** A sum to the nearest whole one. */
export function whole(sum: number): string {
  return Math.round(sum).toLocaleString('en')
}

/** When something was, by the clock of this device: ``30 Nov, 20:05``; nothing where it never was. */
export function when(at: string | null | undefined): string {
  return at ? new Date(at).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' }) : ''
}

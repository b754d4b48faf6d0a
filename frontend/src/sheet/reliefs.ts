import type { Relief } from '@/api/types'

/** What each kind of relief is of, as its legend says it. */
export const SAID: Record<Relief['show'], string> = {
  level: 'dBm', snr: 'dB over the noise', rate: 'Mb/s for one user', chance: '% chance that a call holds',
  heard: 'access points are heard', serves: 'who is the loudest where', difference: 'dB more or less',
}

/** The tint between two figures of a relief, the lowest first. */
export const tintOf = (relief: Relief, i: number) => `var(--${relief.show === 'difference' ? 'change' : 'tint'}-${i})`

/** A figure as it is written on the sheet and in the legend. */
export function written(relief: Relief, figure: number): string {
  const plain = String(figure).replace('-', '−')
  if (relief.show === 'difference') return figure > 0 ? `+${plain}` : plain
  return relief.show === 'chance' ? `${plain} %` : plain
}

/** What the tints stand for, in the order that they are drawn in. */
export function tintsSaid(relief: Relief): string[] {
  if (!relief.figures.length || relief.show === 'serves') return []
  const said = relief.figures.map((f) => written(relief, f).replace(' %', ''))
  if (relief.show === 'heard') return ['nobody', ...said.map((f, i) => (i === said.length - 1 ? `${f} or more` : f))]
  return [`below ${said[0]}`, ...said.slice(1).map((f, i) => `${said[i]} to ${f}`), `above ${said.at(-1)}`]
}

import { describe, expect, it } from 'vitest'
import { signed, speed } from '@/document/units'

describe('figures with a sign', () => {
  it('say more and less, and nothing of nothing', () => {
    expect(signed(214.4)).toBe('+214')
    expect(signed(-422)).toBe('\u2212422')
    expect(signed(0)).toBe('0')
  })

  it('keep thousands apart and digits as asked', () => {
    expect(signed(1234.5, 1)).toBe('+1,234.5')
    expect(signed(-0.04, 2)).toBe('\u22120.04')
  })
})

describe('speeds', () => {
  it('are told in the larger unit from a thousand on', () => {
    expect(speed(100)).toBe('100 Mb/s')
    expect(speed(1000)).toBe('1 Gb/s')
    expect(speed(2500)).toBe('2.5 Gb/s')
  })
})

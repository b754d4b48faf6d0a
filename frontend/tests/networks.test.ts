import { describe, expect, it } from 'vitest'
import { cableSaid, strandsSaid } from '@/document/cables'
import { endOf } from '@/document/networks'

describe('the end that a host is at', () => {
  it('is a socket, a device, a port that is given on, a port of a switch', () => {
    expect(endOf('socket:out-5:2')).toEqual({ device: 'out-5', switch: null, port: 2, given: false })
    expect(endOf('device:cam-1')).toEqual({ device: 'cam-1', switch: null, port: 1, given: false })
    expect(endOf('given:plate:3')).toEqual({ device: 'plate', switch: null, port: 3, given: true })
    expect(endOf('port:sw-1:16')).toEqual({ device: null, switch: 'sw-1', port: 16, given: false })
  })

  it('is none for who joins on the air, and for what the plan itself puts into a rack', () => {
    expect(endOf('air:ssid:ap-1')).toBeNull()
    expect(endOf('link:recorder-1')).toBeNull()
  })
})

describe('what a link is pulled in', () => {
  it('is so many of a category, or a kind of fibre', () => {
    expect(cableSaid({ category: '6A', cables: 2, medium: 'copper' })).toBe('2 × category 6A')
    expect(cableSaid({ category: 'os2', cables: 1, medium: 'fibre' })).toBe('fibre, OS2')
  })

  it('tells used, ready and dark strands apart, none twice', () => {
    const sheet = { strands: 12, used: 2, spliced: 4, pairs: 2, splices: 2, loss_db: 1.3, budget_db: 4.6 }
    expect(strandsSaid(sheet)).toBe('12: 2 used, 2 ready, 8 dark')
  })
})

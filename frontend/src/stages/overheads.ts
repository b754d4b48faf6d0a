/** What a cable runs in above a room, as the installer names it. */
export const OVERHEADS = [
  { value: 'ceiling_void', label: 'Ceiling void' },
  { value: 'plenum', label: 'Void that moves air' },
  { value: 'attic', label: 'Attic' },
  { value: 'joists', label: 'Through joists' },
  { value: 'raceway', label: 'Surface raceway' },
]

/** Every kind of space that a leg of a run may lie in. */
export const SPACES: Record<string, string> = {
  room: 'room', ceiling_void: 'ceiling void', plenum: 'void that moves air', joists: 'joists', raceway: 'raceway', attic: 'attic',
  duct: 'duct', riser: 'riser', outdoor: 'air outside', basement: 'basement', rise: 'upright', drop: 'upright',
}

/** What a cable is sheathed for, and why. */
export const JACKETS = {
  indoor: 'for rooms', riser: 'riser, through a floor', plenum: 'plenum, in moving air', outdoor: 'for outdoors, UV-proof', ground: 'for the ground',
} as const

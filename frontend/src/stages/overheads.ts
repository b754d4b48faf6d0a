/** What a cable runs in above a room, as the installer names it. */
export const OVERHEADS = [
  { value: 'ceiling_void', label: 'Ceiling void' },
  { value: 'attic', label: 'Attic' },
  { value: 'joists', label: 'Through joists' },
  { value: 'raceway', label: 'Surface raceway' },
]

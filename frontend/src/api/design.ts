// Made from the design's classes by ./run check. Change those, not this.
import type { Kind } from './types'

/** Kinds of element, each after those that it refers to. */
export const KINDS: Kind[] = [
  "site",
  "building",
  "floor",
  "wall",
  "opening",
  "space",
  "riser",
  "duct",
  "equipment_room",
  "device",
  "run",
  "uplink",
  "switch",
  "injector",
  "network",
  "wireless_name",
  "radio",
  "neighbour",
  "own_figure",
  "line_entry",
  "pain",
  "client_group",
  "habit",
  "zone",
  "old_cable",
  "underlay",
  "variant"
]

/** The key that takes each kind of device in hand. */
export const DEVICE_KEYS: Record<string, string> = {
  "access_point": "a",
  "wall_plate": "p",
  "camera": "c",
  "sensor_gateway": "g",
  "outlet": "u",
  "router": "l"
}

export interface Reference {
  field: string
  kind: Kind
  many: boolean
  optional: boolean
}

/** Which fields of a kind hold ids of other elements. */
export const REFERENCES: Record<Kind, Reference[]> = {
  "site": [],
  "building": [],
  "floor": [
    {
      "field": "building",
      "kind": "building",
      "many": false,
      "optional": false
    }
  ],
  "wall": [
    {
      "field": "floor",
      "kind": "floor",
      "many": false,
      "optional": false
    }
  ],
  "opening": [
    {
      "field": "wall",
      "kind": "wall",
      "many": false,
      "optional": false
    }
  ],
  "space": [
    {
      "field": "floor",
      "kind": "floor",
      "many": false,
      "optional": false
    }
  ],
  "riser": [
    {
      "field": "building",
      "kind": "building",
      "many": false,
      "optional": false
    }
  ],
  "duct": [
    {
      "field": "from_floor",
      "kind": "floor",
      "many": false,
      "optional": false
    },
    {
      "field": "to_floor",
      "kind": "floor",
      "many": false,
      "optional": false
    }
  ],
  "equipment_room": [
    {
      "field": "floor",
      "kind": "floor",
      "many": false,
      "optional": false
    }
  ],
  "device": [
    {
      "field": "floor",
      "kind": "floor",
      "many": false,
      "optional": false
    }
  ],
  "run": [
    {
      "field": "device",
      "kind": "device",
      "many": false,
      "optional": false
    },
    {
      "field": "equipment_room",
      "kind": "equipment_room",
      "many": false,
      "optional": true
    }
  ],
  "uplink": [
    {
      "field": "room",
      "kind": "equipment_room",
      "many": false,
      "optional": false
    },
    {
      "field": "to",
      "kind": "equipment_room",
      "many": false,
      "optional": false
    }
  ],
  "switch": [
    {
      "field": "equipment_room",
      "kind": "equipment_room",
      "many": false,
      "optional": false
    }
  ],
  "injector": [
    {
      "field": "device",
      "kind": "device",
      "many": false,
      "optional": false
    }
  ],
  "network": [
    {
      "field": "reaches",
      "kind": "network",
      "many": true,
      "optional": false
    }
  ],
  "wireless_name": [
    {
      "field": "network",
      "kind": "network",
      "many": false,
      "optional": false
    }
  ],
  "radio": [
    {
      "field": "device",
      "kind": "device",
      "many": false,
      "optional": false
    }
  ],
  "neighbour": [
    {
      "field": "floor",
      "kind": "floor",
      "many": false,
      "optional": false
    }
  ],
  "own_figure": [],
  "line_entry": [
    {
      "field": "floor",
      "kind": "floor",
      "many": false,
      "optional": false
    }
  ],
  "pain": [
    {
      "field": "floor",
      "kind": "floor",
      "many": false,
      "optional": false
    }
  ],
  "client_group": [
    {
      "field": "space",
      "kind": "space",
      "many": false,
      "optional": false
    }
  ],
  "habit": [
    {
      "field": "from_space",
      "kind": "space",
      "many": false,
      "optional": false
    },
    {
      "field": "to_space",
      "kind": "space",
      "many": false,
      "optional": false
    }
  ],
  "zone": [
    {
      "field": "floor",
      "kind": "floor",
      "many": false,
      "optional": false
    }
  ],
  "old_cable": [
    {
      "field": "floor",
      "kind": "floor",
      "many": false,
      "optional": false
    }
  ],
  "underlay": [
    {
      "field": "floor",
      "kind": "floor",
      "many": false,
      "optional": false
    }
  ],
  "variant": []
}

export interface Field {
  default?: unknown
  choices?: readonly (string | number)[]
  least?: number
  most?: number
  above?: number
  longest?: number
}


/** What may be said on site of a step and of a snag. */
export const SAID: Record<string, Record<string, Field>> = {
  "step": {
    "step": {
      "longest": 80
    },
    "state": {
      "choices": [
        "open",
        "done",
        "skipped",
        "blocked"
      ]
    },
    "reason": {
      "default": "",
      "longest": 300
    },
    "note": {
      "default": "",
      "longest": 300
    },
    "minutes": {
      "default": null,
      "least": 0,
      "most": 5000
    },
    "licensed_by": {
      "default": "",
      "longest": 120
    },
    "photo": {
      "default": null,
      "longest": 40
    }
  },
  "snag": {
    "state": {
      "default": "open",
      "choices": [
        "open",
        "closed"
      ]
    },
    "what": {
      "default": "",
      "longest": 300
    },
    "kind": {
      "default": "",
      "longest": 40
    },
    "element": {
      "default": null,
      "longest": 40
    },
    "floor": {
      "default": null,
      "longest": 40
    },
    "owner": {
      "default": "",
      "longest": 120
    },
    "due": {
      "default": null
    },
    "photo": {
      "default": null,
      "longest": 40
    }
  }
}

/** By chapter of an evaluation the tables in it, and the fields that tell their rows apart. */
export const ROW_KEYS: Record<string, Record<string, string[]>> = {
  "brief": {
    "pains": [
      "pain"
    ],
    "wishes": [
      "space"
    ],
    "found": [
      "kind",
      "id"
    ],
    "reserves": [
      "zone"
    ],
    "reminders": [
      "what"
    ],
    "findings": [
      "id"
    ]
  },
  "plan": {
    "findings": [
      "id"
    ]
  },
  "signal": {
    "rooms": [
      "space"
    ],
    "habits": [
      "habit"
    ],
    "radios": [
      "device",
      "band"
    ],
    "fences": [
      "band"
    ],
    "findings": [
      "id"
    ]
  },
  "cable": {
    "runs": [
      "id"
    ],
    "uplinks": [
      "id"
    ],
    "findings": [
      "id"
    ]
  },
  "power": {
    "switches": [
      "switch"
    ],
    "ports": [
      "switch",
      "port"
    ],
    "devices": [
      "device"
    ],
    "left": [
      "link"
    ],
    "ways_up": [
      "switch"
    ],
    "weak_injectors": [
      "device"
    ],
    "findings": [
      "id"
    ]
  },
  "settings": {
    "networks": [
      "id"
    ],
    "names": [
      "id"
    ],
    "ports": [
      "switch",
      "port"
    ],
    "findings": [
      "id"
    ]
  }
}

export interface Pen {
  width_m: number
  tone: 'masonry' | 'light' | 'timber' | 'metal' | 'glass'
  dash_m: number[] | null
  double: boolean
}

export interface Mark {
  strokes: { d: string; as: 'body' | 'clear' | 'dot' | 'line' | 'aim' }[]
  turns: boolean
}

export interface Path {
  dash_px: number[]
  weight_px: number
}

/** How constructions, marks and paths of cable are drawn, and how heavy a path is by its space. */
export const PENS: Record<string, Pen> = {
  "plasterboard": {
    "width_m": 0.1,
    "tone": "light",
    "dash_m": null,
    "double": false
  },
  "foil-board": {
    "width_m": 0.14,
    "tone": "metal",
    "dash_m": [
      0.5,
      0.12
    ],
    "double": false
  },
  "brick-single": {
    "width_m": 0.16,
    "tone": "masonry",
    "dash_m": null,
    "double": true
  },
  "brick-cavity": {
    "width_m": 0.3,
    "tone": "masonry",
    "dash_m": null,
    "double": true
  },
  "block-light": {
    "width_m": 0.14,
    "tone": "light",
    "dash_m": null,
    "double": true
  },
  "block-dense": {
    "width_m": 0.2,
    "tone": "masonry",
    "dash_m": null,
    "double": false
  },
  "concrete": {
    "width_m": 0.28,
    "tone": "masonry",
    "dash_m": null,
    "double": false
  },
  "stone": {
    "width_m": 0.42,
    "tone": "masonry",
    "dash_m": [
      0.7,
      0.1
    ],
    "double": false
  },
  "timber-clad": {
    "width_m": 0.2,
    "tone": "timber",
    "dash_m": null,
    "double": false
  },
  "metal": {
    "width_m": 0.12,
    "tone": "metal",
    "dash_m": [
      0.2,
      0.1
    ],
    "double": false
  },
  "wet-wall": {
    "width_m": 0.14,
    "tone": "light",
    "dash_m": [
      0.25,
      0.08
    ],
    "double": false
  },
  "glass-partition": {
    "width_m": 0.1,
    "tone": "glass",
    "dash_m": null,
    "double": true
  }
}
export const MARKS: Record<string, Mark> = {
  "trig": {
    "strokes": [
      {
        "d": "M0 -9L8.5 6H-8.5Z",
        "as": "body"
      },
      {
        "d": "M-2 1a2 2 0 1 0 4 0a2 2 0 1 0 -4 0Z",
        "as": "dot"
      },
      {
        "d": "M0 -11V-17",
        "as": "aim"
      }
    ],
    "turns": false
  },
  "cairn": {
    "strokes": [
      {
        "d": "M-8 7H8M0 -9L6 3H-6Z",
        "as": "body"
      },
      {
        "d": "M-1.7 -1.5a1.7 1.7 0 1 0 3.4 0a1.7 1.7 0 1 0 -3.4 0Z",
        "as": "dot"
      },
      {
        "d": "M0 -11V-17",
        "as": "aim"
      }
    ],
    "turns": false
  },
  "beacon": {
    "strokes": [
      {
        "d": "M-8 0a8 8 0 1 0 16 0a8 8 0 1 0 -16 0Z",
        "as": "clear"
      },
      {
        "d": "M0 8V-1M-4 8H4M-5.5 -8A7 7 0 0 0 -5.5 2M5.5 -8A7 7 0 0 1 5.5 2",
        "as": "line"
      },
      {
        "d": "M-2.2 -3a2.2 2.2 0 1 0 4.4 0a2.2 2.2 0 1 0 -4.4 0Z",
        "as": "dot"
      }
    ],
    "turns": false
  },
  "bridge": {
    "strokes": [
      {
        "d": "M-9 6V-4H9V6H5A5 5 0 0 0 -5 6Z",
        "as": "body"
      }
    ],
    "turns": false
  },
  "lookout": {
    "strokes": [
      {
        "d": "M-7 2A7 7 0 0 1 7 2Z",
        "as": "body"
      },
      {
        "d": "M0 -6V-12",
        "as": "line"
      }
    ],
    "turns": true
  },
  "stile": {
    "strokes": [
      {
        "d": "M-6 -4H6V4H-6Z",
        "as": "clear"
      },
      {
        "d": "M-6 -2.5H6M-6 2.5H6",
        "as": "line"
      }
    ],
    "turns": false
  },
  "hut": {
    "strokes": [
      {
        "d": "M-7 8V-2L0 -9L7 -2V8Z",
        "as": "body"
      },
      {
        "d": "M-9.5 0.4L0 -9.6L9.5 0.4",
        "as": "line"
      }
    ],
    "turns": false
  },
  "well": {
    "strokes": [
      {
        "d": "M-6.5 0a6.5 6.5 0 1 0 13 0a6.5 6.5 0 1 0 -13 0Z",
        "as": "body"
      },
      {
        "d": "M-2.6 0a2.6 2.6 0 1 0 5.2 0a2.6 2.6 0 1 0 -5.2 0Z",
        "as": "line"
      }
    ],
    "turns": false
  }
}
export const PATHS: Record<string, Path> = {
  "5": {
    "dash_px": [
      3.0,
      5.0
    ],
    "weight_px": 1.5
  },
  "5e": {
    "dash_px": [
      5.0,
      4.0
    ],
    "weight_px": 1.5
  },
  "6": {
    "dash_px": [
      9.0,
      4.0
    ],
    "weight_px": 1.5
  },
  "6A": {
    "dash_px": [
      15.0,
      4.0
    ],
    "weight_px": 1.5
  },
  "between": {
    "dash_px": [
      15.0,
      3.0,
      3.0,
      3.0
    ],
    "weight_px": 4.0
  },
  "fibre": {
    "dash_px": [
      2.0,
      4.0
    ],
    "weight_px": 4.0
  }
}
export const SPACE_WEIGHTS_PX: Record<string, number> = {
  "attic": 2.6,
  "joists": 2.2,
  "raceway": 2.2,
  "duct": 3.0,
  "outdoor": 2.6
}

/** Lengths that screen, paper and core draw by, m. */
export const MEASURES = {
  "on_line_m": 0.02,
  "shortest_wall_m": 0.1,
  "beside_m": 0.2,
  "slab_m": 0.3,
  "rack_reach_m": 1.0
}

export interface Format {
  file: string
  label: string
  icon: string
  accept: string
  about: string
}

/** The files that go out of a project, and those that a new one can begin from. */
export const FORMATS: { out: Format[]; in: Format[] } = {
  "out": [
    {
      "file": "project.json",
      "label": "Project file",
      "icon": "pi-file",
      "accept": ".json",
      "about": ""
    },
    {
      "file": "cables.csv",
      "label": "Cable schedule, CSV",
      "icon": "pi-table",
      "accept": ".csv",
      "about": ""
    },
    {
      "file": "ports.csv",
      "label": "Port map, CSV",
      "icon": "pi-table",
      "accept": ".csv",
      "about": ""
    },
    {
      "file": "labels.csv",
      "label": "Labels of both ends, CSV",
      "icon": "pi-tag",
      "accept": ".csv",
      "about": ""
    },
    {
      "file": "parts.csv",
      "label": "List of parts, CSV",
      "icon": "pi-list",
      "accept": ".csv",
      "about": ""
    },
    {
      "file": "order.xlsx",
      "label": "Parts, work and sum, workbook",
      "icon": "pi-list",
      "accept": ".xlsx",
      "about": ""
    },
    {
      "file": "settings.json",
      "label": "Settings sheet, JSON",
      "icon": "pi-sliders-h",
      "accept": ".json",
      "about": ""
    },
    {
      "file": "settings.yaml",
      "label": "Settings sheet, YAML",
      "icon": "pi-sliders-h",
      "accept": ".yaml",
      "about": ""
    },
    {
      "file": "evaluation.json",
      "label": "Whole evaluation, JSON",
      "icon": "pi-chart-bar",
      "accept": ".json",
      "about": ""
    },
    {
      "file": "brief.pdf",
      "label": "The brief",
      "icon": "pi-file",
      "accept": ".pdf",
      "about": ""
    },
    {
      "file": "offer.pdf",
      "label": "The offer",
      "icon": "pi-file",
      "accept": ".pdf",
      "about": ""
    },
    {
      "file": "labels.pdf",
      "label": "Labels of both ends",
      "icon": "pi-file",
      "accept": ".pdf",
      "about": ""
    },
    {
      "file": "sheets.pdf",
      "label": "Storeys to scale",
      "icon": "pi-file",
      "accept": ".pdf",
      "about": ""
    },
    {
      "file": "hand-over.pdf",
      "label": "The client's hand-over",
      "icon": "pi-file",
      "accept": ".pdf",
      "about": ""
    },
    {
      "file": "technician.pdf",
      "label": "The technician's hand-over",
      "icon": "pi-file",
      "accept": ".pdf",
      "about": ""
    }
  ],
  "in": [
    {
      "file": "project.json",
      "label": "a project file",
      "icon": "pi-file",
      "accept": ".json",
      "about": "A Heathrise project saved as JSON. It is opened as a new project; nothing is replaced."
    },
    {
      "file": "drawing.dxf",
      "label": "a DXF drawing",
      "icon": "pi-file",
      "accept": ".dxf",
      "about": "You choose which layers are which construction; lines, polylines and blocks become walls. Text or binary."
    }
  ]
}

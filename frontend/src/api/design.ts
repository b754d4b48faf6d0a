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

/** What the fields of each kind may hold, and what they hold at first. */
export const FIELDS: Record<Kind, Record<string, Field>> = {
  "site": {
    "id": {
      "longest": 40
    },
    "kind": {
      "default": "office",
      "choices": [
        "home",
        "school",
        "clinic",
        "shop",
        "workshop",
        "office",
        "guest_house"
      ]
    },
    "client_name": {
      "default": "",
      "longest": 120
    },
    "contact": {
      "default": "",
      "longest": 120
    },
    "visited_on": {
      "default": null
    },
    "start_on": {
      "default": null
    },
    "due_on": {
      "default": null
    },
    "budget": {
      "default": null,
      "least": 0,
      "most": 1000000000.0
    },
    "house_rules": {
      "default": [],
      "choices": [
        "no_drilling",
        "listed",
        "landlord",
        "no_visible_cable",
        "quiet_hours"
      ]
    },
    "quiet_hour": {
      "default": "03:00"
    },
    "opens": {
      "default": "08:00"
    },
    "closes": {
      "default": "18:00"
    },
    "units": {
      "default": "metric",
      "choices": [
        "metric",
        "imperial"
      ]
    },
    "domain": {
      "default": "europe",
      "choices": [
        "americas",
        "europe"
      ]
    },
    "line_kind": {
      "default": "fibre",
      "choices": [
        "fibre",
        "coax",
        "dsl",
        "radio",
        "mobile",
        "leased"
      ]
    },
    "line_mbps": {
      "default": 500.0,
      "most": 100000,
      "above": 0
    },
    "line_up_mbps": {
      "default": 100.0,
      "most": 100000,
      "above": 0
    },
    "line_address": {
      "default": "automatic",
      "choices": [
        "automatic",
        "pppoe",
        "fixed"
      ]
    },
    "television": {
      "default": false
    },
    "upstream_gear": {
      "default": "",
      "longest": 120
    },
    "upstream_subnet": {
      "default": "192.168.1.0/24",
      "longest": 18
    },
    "client": {
      "default": "phone",
      "longest": 60
    },
    "minimum_category": {
      "default": "6",
      "choices": [
        "5",
        "5e",
        "6",
        "6A"
      ]
    },
    "cables_per_access_point": {
      "default": 2,
      "least": 1,
      "most": 4
    },
    "cords_m": {
      "default": 5.0,
      "least": 0,
      "most": 20
    },
    "slack_device_m": {
      "default": 3.0,
      "least": 0,
      "most": 20
    },
    "slack_rack_m": {
      "default": 3.0,
      "least": 0,
      "most": 20
    },
    "power_headroom": {
      "default": 0.2,
      "least": 0,
      "most": 0.9
    },
    "width_5ghz_mhz": {
      "default": 40,
      "choices": [
        20,
        40,
        80
      ]
    },
    "channels_149_up": {
      "default": false
    },
    "radar_channels": {
      "default": true
    },
    "four_channels_24": {
      "default": false
    },
    "channels_by": {
      "default": "plan",
      "choices": [
        "plan",
        "controller"
      ]
    },
    "asks_second": {
      "default": true
    },
    "mount_first": {
      "default": "ceiling",
      "choices": [
        "ceiling",
        "wall"
      ]
    },
    "back_haul": {
      "default": "wired",
      "choices": [
        "wired",
        "mesh"
      ]
    },
    "margin_db": {
      "default": 3.0,
      "least": 0,
      "most": 20
    },
    "tight_bundles": {
      "default": false
    },
    "currency": {
      "default": "EUR"
    }
  },
  "building": {
    "id": {
      "longest": 40
    },
    "name": {
      "longest": 120
    },
    "roof": {
      "default": "roof-tiles",
      "longest": 60
    },
    "built": {
      "default": null,
      "least": 1000,
      "most": 2200
    }
  },
  "floor": {
    "id": {
      "longest": 40
    },
    "building": {
      "longest": 40
    },
    "name": {
      "longest": 120
    },
    "level": {
      "least": -9,
      "most": 50
    },
    "elevation_m": {
      "default": 0.0,
      "least": -50,
      "most": 200
    },
    "ceiling_height_m": {
      "default": 2.7,
      "most": 30,
      "above": 1.5
    },
    "slab": {
      "default": "floor-concrete",
      "longest": 60
    },
    "overhead": {
      "default": "ceiling_void",
      "choices": [
        "ceiling_void",
        "attic",
        "joists",
        "raceway"
      ]
    }
  },
  "wall": {
    "id": {
      "longest": 40
    },
    "floor": {
      "longest": 40
    },
    "construction": {
      "longest": 60
    }
  },
  "opening": {
    "id": {
      "longest": 40
    },
    "wall": {
      "longest": 40
    },
    "kind": {
      "choices": [
        "door",
        "window",
        "gap"
      ]
    },
    "offset_m": {
      "least": 0,
      "most": 10000
    },
    "width_m": {
      "most": 10000.0,
      "above": 0
    },
    "construction": {
      "longest": 60
    }
  },
  "space": {
    "id": {
      "longest": 40
    },
    "floor": {
      "longest": 40
    },
    "name": {
      "longest": 120
    },
    "use": {
      "default": "everyday",
      "choices": [
        "calls",
        "everyday",
        "sensors",
        "none"
      ]
    },
    "overhead": {
      "default": null,
      "choices": [
        "ceiling_void",
        "attic",
        "joists",
        "raceway"
      ]
    },
    "ceiling_height_m": {
      "default": null,
      "most": 30,
      "above": 1.5
    },
    "open_above": {
      "default": false
    },
    "stairs": {
      "default": false
    },
    "outdoor": {
      "default": false
    }
  },
  "riser": {
    "id": {
      "longest": 40
    },
    "building": {
      "longest": 40
    },
    "name": {
      "longest": 120
    },
    "lowest_level": {
      "least": -9,
      "most": 50
    },
    "highest_level": {
      "least": -9,
      "most": 50
    }
  },
  "duct": {
    "id": {
      "longest": 40
    },
    "name": {
      "longest": 120
    },
    "from_floor": {
      "longest": 40
    },
    "to_floor": {
      "longest": 40
    },
    "depth_m": {
      "default": 0.6,
      "least": 0,
      "most": 5
    },
    "dug": {
      "default": "loam",
      "choices": [
        "loam",
        "clay",
        "stony",
        "machine",
        "plough",
        "paving",
        "drive",
        "there"
      ]
    }
  },
  "equipment_room": {
    "id": {
      "longest": 40
    },
    "floor": {
      "longest": 40
    },
    "name": {
      "longest": 120
    },
    "rack_height_m": {
      "default": 1.2,
      "least": 0,
      "most": 3
    }
  },
  "device": {
    "id": {
      "longest": 40
    },
    "floor": {
      "longest": 40
    },
    "kind": {
      "longest": 40
    },
    "model": {
      "longest": 60
    },
    "name": {
      "longest": 120
    },
    "height_m": {
      "default": 2.7,
      "least": -50,
      "most": 200
    },
    "mount": {
      "default": "ceiling",
      "choices": [
        "ceiling",
        "wall",
        "desk",
        "pole"
      ]
    },
    "azimuth_deg": {
      "default": 0.0,
      "least": -360,
      "most": 360
    },
    "tilt_deg": {
      "default": 0.0,
      "least": -360,
      "most": 360
    },
    "state": {
      "default": "new",
      "choices": [
        "new",
        "keep",
        "retire",
        "unknown"
      ]
    }
  },
  "run": {
    "id": {
      "longest": 40
    },
    "device": {
      "longest": 40
    },
    "category": {
      "default": null,
      "choices": [
        "5",
        "5e",
        "6",
        "6A"
      ]
    },
    "cables": {
      "default": null,
      "least": 1,
      "most": 4
    },
    "equipment_room": {
      "default": null,
      "longest": 40
    },
    "over_air": {
      "default": false
    }
  },
  "uplink": {
    "id": {
      "longest": 40
    },
    "room": {
      "longest": 40
    },
    "to": {
      "longest": 40
    },
    "medium": {
      "default": null,
      "choices": [
        "copper",
        "fibre"
      ]
    }
  },
  "switch": {
    "id": {
      "longest": 40
    },
    "equipment_room": {
      "longest": 40
    },
    "name": {
      "longest": 120
    },
    "model": {
      "longest": 60
    },
    "state": {
      "default": "new",
      "choices": [
        "new",
        "keep",
        "retire",
        "unknown"
      ]
    }
  },
  "injector": {
    "id": {
      "longest": 40
    },
    "device": {
      "longest": 40
    },
    "model": {
      "longest": 60
    }
  },
  "network": {
    "id": {
      "longest": 40
    },
    "name": {
      "longest": 120
    },
    "purpose": {
      "choices": [
        "main",
        "staff",
        "guest",
        "devices",
        "cameras",
        "management"
      ]
    },
    "vlan": {
      "least": 1,
      "most": 4094
    },
    "subnet": {
      "longest": 18
    },
    "expected_clients": {
      "default": 20,
      "least": 0,
      "most": 5000
    },
    "client_isolation": {
      "default": false
    },
    "reaches": {
      "default": [],
      "longest": 40
    }
  },
  "wireless_name": {
    "id": {
      "longest": 40
    },
    "network": {
      "longest": 40
    },
    "ssid": {
      "longest": 32
    },
    "bands": {
      "default": [
        "2.4",
        "5"
      ],
      "choices": [
        "2.4",
        "5",
        "6"
      ]
    },
    "security": {
      "default": "wpa3_wpa2",
      "choices": [
        "wpa3",
        "wpa3_wpa2",
        "wpa2",
        "enterprise",
        "open_portal"
      ]
    },
    "client_isolation": {
      "default": false
    },
    "fast_transition": {
      "default": true
    }
  },
  "radio": {
    "id": {
      "longest": 40
    },
    "device": {
      "longest": 40
    },
    "band": {
      "choices": [
        "2.4",
        "5",
        "6"
      ]
    },
    "on": {
      "default": true
    },
    "channel": {
      "default": null,
      "least": 1,
      "most": 233
    },
    "power_dbm": {
      "default": null,
      "least": 0,
      "most": 36
    }
  },
  "neighbour": {
    "id": {
      "longest": 40
    },
    "floor": {
      "longest": 40
    },
    "name": {
      "longest": 120
    },
    "band": {
      "choices": [
        "2.4",
        "5",
        "6"
      ]
    },
    "channel": {
      "least": 1,
      "most": 233
    },
    "width_mhz": {
      "default": 20,
      "choices": [
        20,
        40,
        80,
        160
      ]
    },
    "level_dbm": {
      "least": -120,
      "most": 0
    }
  },
  "own_figure": {
    "id": {
      "longest": 40
    },
    "figure": {
      "longest": 100
    },
    "value": {
      "longest": 40
    }
  },
  "line_entry": {
    "id": {
      "longest": 40
    },
    "floor": {
      "longest": 40
    },
    "name": {
      "longest": 120
    }
  },
  "pain": {
    "id": {
      "longest": 40
    },
    "floor": {
      "longest": 40
    },
    "kind": {
      "choices": [
        "dead",
        "slow",
        "drops",
        "lags",
        "full_bars",
        "clings",
        "one_device",
        "heap"
      ]
    },
    "words": {
      "default": "",
      "longest": 400
    }
  },
  "client_group": {
    "id": {
      "longest": 40
    },
    "space": {
      "longest": 40
    },
    "kind": {
      "longest": 60
    },
    "count": {
      "default": 1,
      "least": 1,
      "most": 5000
    },
    "wired": {
      "default": 0,
      "least": 0,
      "most": 5000
    },
    "old": {
      "default": false
    }
  },
  "habit": {
    "id": {
      "longest": 40
    },
    "from_space": {
      "longest": 40
    },
    "to_space": {
      "longest": 40
    }
  },
  "zone": {
    "id": {
      "longest": 40
    },
    "floor": {
      "longest": 40
    },
    "kind": {
      "choices": [
        "later",
        "no_drilling"
      ]
    },
    "name": {
      "longest": 120
    },
    "access_points": {
      "default": 0,
      "least": 0,
      "most": 200
    },
    "outlets": {
      "default": 0,
      "least": 0,
      "most": 500
    },
    "cameras": {
      "default": 0,
      "least": 0,
      "most": 200
    }
  },
  "old_cable": {
    "id": {
      "longest": 40
    },
    "floor": {
      "longest": 40
    },
    "name": {
      "longest": 120
    },
    "category": {
      "default": null,
      "choices": [
        "5",
        "5e",
        "6",
        "6A"
      ]
    },
    "condition": {
      "default": "untested",
      "choices": [
        "good",
        "damaged",
        "untested"
      ]
    },
    "state": {
      "default": "unknown",
      "choices": [
        "new",
        "keep",
        "retire",
        "unknown"
      ]
    }
  },
  "underlay": {
    "id": {
      "longest": 40
    },
    "floor": {
      "longest": 40
    },
    "picture": {
      "longest": 40
    },
    "name": {
      "longest": 120
    },
    "width_px": {
      "least": 1,
      "most": 20000
    },
    "height_px": {
      "least": 1,
      "most": 20000
    },
    "metres_per_px": {
      "most": 100,
      "above": 0
    },
    "turn_deg": {
      "default": 0.0,
      "least": -360,
      "most": 360
    },
    "crop": {
      "default": [
        0.0,
        0.0,
        0.0,
        0.0
      ]
    },
    "strength": {
      "default": 0.6,
      "least": 0,
      "most": 1
    },
    "hidden": {
      "default": false
    }
  },
  "variant": {
    "id": {
      "longest": 40
    },
    "name": {
      "longest": 120
    }
  }
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

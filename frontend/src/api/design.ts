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
  "buried_service",
  "grove",
  "equipment_room",
  "device",
  "run",
  "way_point",
  "uplink",
  "switch",
  "port_pin",
  "way_pin",
  "injector",
  "extender",
  "network",
  "wireless_name",
  "membership",
  "radio",
  "portal",
  "voucher_set",
  "neighbour",
  "own_figure",
  "line_entry",
  "pain",
  "client_group",
  "habit",
  "zone",
  "old_cable",
  "underlay",
  "panel",
  "far_point",
  "socket",
  "mains_route",
  "light",
  "rack_place",
  "practice",
  "variant"
]

/** The key that takes each kind of device in hand. */
export const DEVICE_KEYS: Record<string, string> = {
  "access_point": "a",
  "wall_plate": "p",
  "camera": "c",
  "doorbell": "j",
  "door_entry": "y",
  "sensor_gateway": "g",
  "relay": "x",
  "storage": "q",
  "recorder": "h",
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
  "buried_service": [],
  "grove": [],
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
    },
    {
      "field": "through",
      "kind": "device",
      "many": false,
      "optional": true
    }
  ],
  "way_point": [
    {
      "field": "device",
      "kind": "device",
      "many": false,
      "optional": false
    },
    {
      "field": "floor",
      "kind": "floor",
      "many": false,
      "optional": false
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
  "port_pin": [
    {
      "field": "switch",
      "kind": "switch",
      "many": false,
      "optional": false
    },
    {
      "field": "device",
      "kind": "device",
      "many": false,
      "optional": false
    }
  ],
  "way_pin": [
    {
      "field": "switch",
      "kind": "switch",
      "many": false,
      "optional": false
    },
    {
      "field": "to",
      "kind": "switch",
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
  "extender": [
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
    },
    {
      "field": "shut",
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
    },
    {
      "field": "access_points",
      "kind": "device",
      "many": true,
      "optional": false
    }
  ],
  "membership": [
    {
      "field": "network",
      "kind": "network",
      "many": false,
      "optional": false
    },
    {
      "field": "device",
      "kind": "device",
      "many": false,
      "optional": false
    },
    {
      "field": "switch",
      "kind": "switch",
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
  "portal": [
    {
      "field": "network",
      "kind": "network",
      "many": false,
      "optional": false
    }
  ],
  "voucher_set": [
    {
      "field": "portal",
      "kind": "portal",
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
  "panel": [
    {
      "field": "floor",
      "kind": "floor",
      "many": false,
      "optional": false
    }
  ],
  "far_point": [
    {
      "field": "room",
      "kind": "equipment_room",
      "many": false,
      "optional": true
    },
    {
      "field": "panel",
      "kind": "panel",
      "many": false,
      "optional": true
    }
  ],
  "socket": [
    {
      "field": "floor",
      "kind": "floor",
      "many": false,
      "optional": false
    },
    {
      "field": "panel",
      "kind": "panel",
      "many": false,
      "optional": true
    }
  ],
  "mains_route": [
    {
      "field": "floor",
      "kind": "floor",
      "many": false,
      "optional": false
    }
  ],
  "light": [
    {
      "field": "floor",
      "kind": "floor",
      "many": false,
      "optional": false
    }
  ],
  "rack_place": [
    {
      "field": "equipment_room",
      "kind": "equipment_room",
      "many": false,
      "optional": false
    }
  ],
  "practice": [],
  "variant": []
}

// Made from the classes of the core by ./run check. Change those, not this.

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
    "mains": [
      "id"
    ],
    "views": [
      "device"
    ],
    "gaps": [
      "id"
    ],
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
    "beside": [
      "id"
    ],
    "trunks": [
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
    "far": [
      "device"
    ],
    "ways_up": [
      "switch"
    ],
    "weak_injectors": [
      "device"
    ],
    "passive": [
      "device"
    ],
    "splits": [
      "device"
    ],
    "plugged": [
      "device"
    ],
    "lost_pins": [
      "pin"
    ],
    "stores": [
      "name"
    ],
    "findings": [
      "id"
    ]
  },
  "racks": {
    "racks": [
      "room"
    ],
    "things": [
      "room",
      "thing"
    ],
    "cords": [
      "room",
      "from_thing",
      "from_port",
      "to_thing",
      "to_port"
    ]
  },
  "chains": {
    "chains": [
      "device"
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
    "services": [
      "service"
    ],
    "hosts": [
      "id"
    ],
    "portals": [
      "id"
    ],
    "vouchers": [
      "id"
    ],
    "findings": [
      "id"
    ]
  }
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
      "file": "plan.dxf",
      "label": "The plan in layers by storey, DXF",
      "icon": "pi-pencil",
      "accept": ".dxf",
      "about": ""
    },
    {
      "file": "plan.geojson",
      "label": "The plan in local metres, GeoJSON",
      "icon": "pi-map",
      "accept": ".geojson",
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
      "file": "diagram.svg",
      "label": "The network drawn, SVG",
      "icon": "pi-sitemap",
      "accept": ".svg",
      "about": ""
    },
    {
      "file": "diagram.png",
      "label": "The network drawn, PNG",
      "icon": "pi-sitemap",
      "accept": ".png",
      "about": ""
    },
    {
      "file": "diagram.graphml",
      "label": "The network as a graph, GraphML",
      "icon": "pi-sitemap",
      "accept": ".graphml",
      "about": ""
    },
    {
      "file": "diagram.dot",
      "label": "The network as a graph, DOT",
      "icon": "pi-sitemap",
      "accept": ".dot",
      "about": ""
    },
    {
      "file": "diagram.pdf",
      "label": "The network drawn",
      "icon": "pi-file",
      "accept": ".pdf",
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
      "file": "racks.pdf",
      "label": "Racks to scale, cord by cord",
      "icon": "pi-file",
      "accept": ".pdf",
      "about": ""
    },
    {
      "file": "settings.pdf",
      "label": "Every setting with its reason",
      "icon": "pi-file",
      "accept": ".pdf",
      "about": ""
    },
    {
      "file": "guests.pdf",
      "label": "A notice for guests",
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
      "file": "plan.geojson",
      "label": "a plan as GeoJSON",
      "icon": "pi-file",
      "accept": ".geojson",
      "about": "A plan that went out as GeoJSON: storeys, walls, rooms, gear and ways as they were drawn."
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

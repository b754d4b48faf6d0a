// Made from the catalogue by ./run check. Change that, not this.

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
  "ford": {
    "strokes": [
      {
        "d": "M-8 -5H8V5H-8Z",
        "as": "body"
      },
      {
        "d": "M-11 0H-8M8 -2.5H11M8 2.5H11M-3 0H3M1 -2.2L3.4 0L1 2.2",
        "as": "line"
      }
    ],
    "turns": false
  },
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
  "knocker": {
    "strokes": [
      {
        "d": "M-7 3H7V6.5H-7Z",
        "as": "body"
      },
      {
        "d": "M-4.5 3V0.5A4.5 4.5 0 0 1 4.5 0.5V3",
        "as": "line"
      },
      {
        "d": "M-1.6 -4.5a1.6 1.6 0 1 0 3.2 0a1.6 1.6 0 1 0 -3.2 0Z",
        "as": "dot"
      }
    ],
    "turns": true
  },
  "wicket": {
    "strokes": [
      {
        "d": "M-8 7V-5H-5V7ZM5 7V-5H8V7Z",
        "as": "body"
      },
      {
        "d": "M-5 -2.5H5M-5 3.5H5M-5 3.5L5 -2.5",
        "as": "line"
      }
    ],
    "turns": true
  },
  "stack": {
    "strokes": [
      {
        "d": "M-8 7V3H8V7ZM-7 2.5V-1.5H7V2.5ZM-6 -2V-6H6V-2Z",
        "as": "body"
      },
      {
        "d": "M-4 5H-1M-4 0.5H-1M-4 -4H-1",
        "as": "line"
      }
    ],
    "turns": false
  },
  "ledger": {
    "strokes": [
      {
        "d": "M-8 6V-6H8V6Z",
        "as": "body"
      },
      {
        "d": "M-8 2.5H8",
        "as": "line"
      },
      {
        "d": "M-4.5 -2a2 2 0 1 0 4 0a2 2 0 1 0 -4 0ZM1 -2a2 2 0 1 0 4 0a2 2 0 1 0 -4 0Z",
        "as": "line"
      }
    ],
    "turns": false
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
  "sluice": {
    "strokes": [
      {
        "d": "M-7 -3H7V3H-7Z",
        "as": "body"
      },
      {
        "d": "M-4 3V-3M0 3V-3M4 3V-3M-7 -5.5H7",
        "as": "line"
      }
    ],
    "turns": true
  },
  "spring": {
    "strokes": [
      {
        "d": "M-5 0a5 5 0 1 0 10 0a5 5 0 1 0 -10 0Z",
        "as": "body"
      },
      {
        "d": "M-2.4 -1.4V1.4M2.4 -1.4V1.4",
        "as": "line"
      }
    ],
    "turns": false
  },
  "lamp": {
    "strokes": [
      {
        "d": "M-4 0a4 4 0 1 0 8 0a4 4 0 1 0 -8 0Z",
        "as": "clear"
      },
      {
        "d": "M-4 0a4 4 0 1 0 8 0a4 4 0 1 0 -8 0ZM0 -7V-5M0 5V7M-7 0H-5M5 0H7",
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

/** What a cord is drawn in, by the word for its colour. */
export const CORDS: Record<string, string> = {
  "white": "#b9b4ac",
  "grey": "#8a8580",
  "black": "#2b2622",
  "blue": "#3b6ea8",
  "green": "#4c7a3c",
  "yellow": "#c9a000",
  "orange": "#c8702a",
  "red": "#b8402a",
  "violet": "#7a4a9a",
  "pink": "#c06a90"
}

/** Lengths that screen, paper and core draw by, m. */
export const MEASURES = {
  "on_line_m": 0.02,
  "shortest_wall_m": 0.1,
  "beside_m": 0.2,
  "slab_m": 0.3,
  "rack_reach_m": 1.0,
  "least_room_m2": 1.0,
  "least_room_width_m": 0.35
}

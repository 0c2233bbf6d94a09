/** Paints the pictures of the demo clips: a workshop with a hull on trestles, and an estuary at low water. */

type Colour = readonly [number, number, number]

export class Canvas {
  readonly pixels: Uint8Array

  constructor(
    readonly widthPx: number,
    readonly heightPx: number,
  ) {
    this.pixels = new Uint8Array(widthPx * heightPx * 3)
  }

  /** Binary PPM (Netpbm P6). */
  ppm(): Buffer {
    return Buffer.concat([Buffer.from(`P6\n${this.widthPx} ${this.heightPx}\n255\n`), this.pixels])
  }

  #span(y: number, from: number, to: number, colour: Colour): void {
    const start = Math.max(0, Math.round(from))
    const end = Math.min(this.widthPx, Math.round(to))
    for (let x = start, at = (y * this.widthPx + start) * 3; x < end; x += 1, at += 3) {
      this.pixels[at] = colour[0]
      this.pixels[at + 1] = colour[1]
      this.pixels[at + 2] = colour[2]
    }
  }

  /** Fills rows between two heights (0–1) with a gradient. */
  gradient(top: number, bottom: number, from: Colour, to: Colour): void {
    const [first, last] = [Math.round(top * this.heightPx), Math.round(bottom * this.heightPx)]
    for (let y = first; y < last; y += 1) {
      const share = (y - first) / (last - first)
      this.#span(
        y,
        0,
        this.widthPx,
        [0, 1, 2].map((at) =>
          Math.round((from[at] ?? 0) + ((to[at] ?? 0) - (from[at] ?? 0)) * share),
        ) as unknown as Colour,
      )
    }
  }

  /** Fills a polygon given in shares of width and height, by the even-odd rule. */
  polygon(points: readonly (readonly [number, number])[], colour: Colour): void {
    const corners = points.map(([x, y]) => [x * this.widthPx, y * this.heightPx] as const)
    const ys = corners.map(([, y]) => y)
    const last = Math.min(this.heightPx - 1, Math.floor(Math.max(...ys)))
    for (let y = Math.max(0, Math.ceil(Math.min(...ys))); y <= last; y += 1) {
      const crossings = corners
        .flatMap(([x1, y1], at) => {
          const [x2, y2] = corners[(at + 1) % corners.length] ?? [x1, y1]
          return y1 <= y !== y2 <= y ? [x1 + ((y - y1) / (y2 - y1)) * (x2 - x1)] : []
        })
        .sort((a, b) => a - b)
      for (let at = 0; at + 1 < crossings.length; at += 2)
        this.#span(y, crossings[at] ?? 0, crossings[at + 1] ?? 0, colour)
    }
  }

  ellipse(x: number, y: number, radiusX: number, radiusY: number, colour: Colour): void {
    this.polygon(
      Array.from(
        { length: 48 },
        (_, at) => [x + radiusX * Math.cos((at / 24) * Math.PI), y + radiusY * Math.sin((at / 24) * Math.PI)] as const,
      ),
      colour,
    )
  }

  /** A bent rib: a band along half an ellipse. */
  rib(x: number, y: number, radiusX: number, radiusY: number, width: number, colour: Colour): void {
    const arc = (grow: number) =>
      Array.from(
        { length: 25 },
        (_, at) =>
          [
            x - (radiusX + grow) * Math.cos((at / 24) * Math.PI),
            y + (radiusY + grow * 1.7) * Math.sin((at / 24) * Math.PI),
          ] as const,
      )
    this.polygon([...arc(width / 2), ...arc(-width / 2).reverse()], colour)
  }
}

/** A person at work, standing on (x, y), `size` of the frame's height tall. */
function person(canvas: Canvas, x: number, y: number, size: number, coat: Colour): void {
  const unit = size / 8
  const wide = (unit * canvas.heightPx) / canvas.widthPx
  canvas.polygon(
    [
      [x - wide * 0.8, y],
      [x - wide * 0.9, y - unit * 4],
      [x + wide * 0.9, y - unit * 4],
      [x + wide * 0.8, y],
    ],
    [38, 44, 56],
  )
  canvas.polygon(
    [
      [x - wide * 1.2, y - unit * 3.4],
      [x - wide, y - unit * 6.8],
      [x + wide, y - unit * 6.8],
      [x + wide * 1.2, y - unit * 3.4],
    ],
    coat,
  )
  canvas.polygon(
    [
      [x + wide * 0.5, y - unit * 6.5],
      [x + wide * 3.2, y - unit * 4.6],
      [x + wide * 3.1, y - unit * 4],
      [x + wide * 0.5, y - unit * 5.2],
    ],
    coat,
  )
  canvas.ellipse(x, y - unit * 7.5, wide * 0.75, unit * 0.75, [205, 160, 128])
  canvas.polygon(
    [
      [x - wide * 0.9, y - unit * 7.7],
      [x - wide * 0.7, y - unit * 8.4],
      [x + wide * 0.7, y - unit * 8.4],
      [x + wide * 1.1, y - unit * 7.7],
    ],
    [44, 62, 78],
  )
}

/** The workshop: boarded wall, a window on the water, a clinker hull on trestles with `ribs` of eleven ribs bent in. */
export function workshop(canvas: Canvas, ribs: number): void {
  room(canvas)
  hull(canvas, ribs)
  person(canvas, 0.52, 0.93, 0.6, [46, 96, 110])
}

function room(canvas: Canvas): void {
  canvas.gradient(0, 0.74, [122, 98, 74], [92, 70, 52])
  for (let board = 0; board < 15; board += 1)
    canvas.polygon(
      [
        [board / 15, 0],
        [board / 15 + 0.0015, 0],
        [board / 15 + 0.0015, 0.74],
        [board / 15, 0.74],
      ],
      [70, 52, 38],
    )
  canvas.gradient(0.74, 1, [128, 112, 92], [92, 80, 66])
  canvas.polygon(
    [
      [0.08, 0.1],
      [0.34, 0.1],
      [0.34, 0.46],
      [0.08, 0.46],
    ],
    [226, 232, 228],
  )
  canvas.polygon(
    [
      [0.09, 0.3],
      [0.33, 0.28],
      [0.33, 0.445],
      [0.09, 0.445],
    ],
    [140, 170, 172],
  )
  canvas.polygon(
    [
      [0.205, 0.1],
      [0.213, 0.1],
      [0.213, 0.46],
      [0.205, 0.46],
    ],
    [82, 62, 46],
  )
  canvas.polygon(
    [
      [0.72, 0.3],
      [0.98, 0.3],
      [0.98, 0.4],
      [0.72, 0.4],
    ],
    [168, 132, 86],
  )
  for (const [x, radius] of [
    [0.715, 0.03],
    [0.705, 0.045],
    [0.69, 0.055],
  ] as const)
    canvas.ellipse(x, 0.33 - radius * 2, radius * 0.5, radius, [196, 190, 180])
}

function hull(canvas: Canvas, ribs: number): void {
  canvas.polygon(
    [
      [0.2, 0.56],
      [0.82, 0.52],
      [0.78, 0.7],
      [0.7, 0.77],
      [0.33, 0.78],
      [0.25, 0.72],
    ],
    [150, 92, 48],
  )
  for (let strake = 0; strake < 5; strake += 1) {
    const y = strake * 0.038
    canvas.polygon(
      [
        [0.205 + y * 0.3, 0.585 + y],
        [0.815 - y * 0.3, 0.55 + y],
        [0.814 - y * 0.3, 0.558 + y],
        [0.206 + y * 0.3, 0.593 + y],
      ],
      [104, 60, 30],
    )
  }
  for (let at = 0; at < ribs; at += 1)
    canvas.rib(0.26 + at * 0.048, 0.57 - at * 0.003, 0.02, 0.12, 0.005, [222, 182, 120])
  for (const x of [0.32, 0.66])
    canvas.polygon(
      [
        [x, 0.74],
        [x + 0.05, 0.74],
        [x + 0.08, 0.96],
        [x + 0.06, 0.96],
        [x + 0.025, 0.8],
        [x - 0.01, 0.96],
        [x - 0.03, 0.96],
      ],
      [84, 62, 42],
    )
}

/** The estuary at low water: mud, a creek, a dinghy drawn up, and somebody walking to it. */
export function estuary(canvas: Canvas, evening: number): void {
  lowWater(canvas, evening)
  dinghy(canvas)
  person(canvas, 0.24, 0.9, 0.36, [178, 60, 44])
}

function lowWater(canvas: Canvas, evening: number): void {
  canvas.gradient(
    0,
    0.45,
    [150 + evening * 60, 184 - evening * 30, 204 - evening * 60],
    [232, 214 - evening * 30, 186 - evening * 50],
  )
  canvas.ellipse(0.74, 0.32, 0.028, 0.05, [250, 236, 200])
  canvas.polygon(
    [
      [0, 0.44],
      [0.2, 0.4],
      [0.42, 0.43],
      [0.7, 0.415],
      [1, 0.43],
      [1, 0.47],
      [0, 0.47],
    ],
    [86, 104, 98],
  )
  canvas.gradient(0.46, 0.62, [176, 188, 184], [136, 158, 160])
  for (let wave = 0; wave < 14; wave += 1)
    canvas.polygon(
      [
        [0.05 + wave * 0.067, 0.48 + (wave % 5) * 0.024],
        [0.13 + wave * 0.067, 0.48 + (wave % 5) * 0.024],
        [0.12 + wave * 0.067, 0.485 + (wave % 5) * 0.024],
      ],
      [206, 212, 204],
    )
  canvas.gradient(0.62, 1, [124, 112, 92], [88, 80, 66])
  canvas.polygon(
    [
      [0.62, 0.62],
      [0.7, 0.62],
      [0.52, 0.78],
      [0.4, 1],
      [0.2, 1],
      [0.34, 0.8],
    ],
    [142, 158, 158],
  )
}

function dinghy(canvas: Canvas): void {
  canvas.polygon(
    [
      [0.3, 0.7],
      [0.66, 0.68],
      [0.61, 0.82],
      [0.37, 0.84],
    ],
    [158, 88, 44],
  )
  canvas.polygon(
    [
      [0.3, 0.7],
      [0.66, 0.68],
      [0.655, 0.695],
      [0.305, 0.716],
    ],
    [226, 206, 160],
  )
  canvas.polygon(
    [
      [0.47, 0.12],
      [0.477, 0.12],
      [0.482, 0.7],
      [0.472, 0.7],
    ],
    [96, 66, 40],
  )
  canvas.polygon(
    [
      [0.48, 0.15],
      [0.62, 0.62],
      [0.484, 0.64],
    ],
    [196, 84, 58],
  )
  for (let reed = 0; reed < 60; reed += 1)
    canvas.polygon(
      [
        [0.72 + reed * 0.005, 1],
        [0.722 + reed * 0.0051, 0.72 + ((reed * 37) % 11) * 0.012],
        [0.724 + reed * 0.005, 1],
      ],
      [106, 112, 60],
    )
}

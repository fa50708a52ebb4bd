import { convertXyz65ToLab65 } from 'culori';

/** CIELAB (D65) of linear light (sRGB's primaries, IEC 61966-2-1), by the library `culori`. @returns L*, a*, b* */
export function labOfLight(red: number, green: number, blue: number): readonly [number, number, number] {
  const [r, g, b] = [cut(red), cut(green), cut(blue)];
  // The library's way here begins with the curve of sRGB, and would take it off again: most of the time.
  const {
    l,
    a,
    b: yellow,
  } = convertXyz65ToLab65({
    x: 0.4123907992659593 * r + 0.357584339383878 * g + 0.1804807884018343 * b,
    y: 0.2126390058715102 * r + 0.715168678767756 * g + 0.0721923153607337 * b,
    z: 0.0193308187155918 * r + 0.119194779794626 * g + 0.9505321522496607 * b,
  });
  return [l, a, yellow];
}
const cut = (value: number) => Math.min(1.2, Math.max(0, value));

/** From here on a channel has as much light as the camera takes, and tells no more, 0…1. */
export const FULL = 0.985;

/** How a photograph is lit at each cell, channel by channel: what is seen is gain × tint + veil. */
export interface LightField {
  /** Three values a cell. */
  gain: Float32Array;
  veil: Float32Array;
}

/** What a tint is on white paper in the light of the samples. */
export function litAs(light: LightField, cell: number, tints: Float32Array): [number, number, number] {
  const at = cell * 3;
  return [0, 1, 2].map(
    (channel) =>
      (tints[at + channel]! - light.veil[at + channel]!) / Math.max(0.02, light.gain[at + channel]!),
  ) as [number, number, number];
}

/** Cells between places at which the light is reckoned; between them it is taken straight. */
const STEP = 3;
/** How far cells count for a place, in cells (standard deviation). */
const SIGMA = 4.5;
/** How strongly gain is held to that of the whole photograph, and veil to none, in cells of weight. */
const GAIN_HELD = 0.45;
const VEIL_HELD = 9;
/** How strongly the colour of the light is held to that of the whole photograph, and how far it may lie off it. */
const COLOUR_HELD = 10;
const MOST_COLOUR = 1.25;

/**
 * The light at each cell, from cells whose class is trusted: around each place one line is fitted
 * for all channels through what is seen over what the class is: a brightness and a veil of white light, held strongly to
 * none, for it is a reflection's alone. A fit of its own for each channel would turn the colour of a whole region that was
 * taken for another one into the right one.
 * @param seen linear light of each cell, three values a cell @param meant the same of its class; rows of cells
 * @param trust weight of each cell; 0 leaves it out
 */
export function lightField(
  seen: Float32Array,
  meant: Float32Array,
  trust: Float32Array,
  columns: number,
  rows: number,
): LightField {
  const overall = [0, 1, 2].map((channel) => {
    const ratios: number[] = [];
    for (let cell = 0; cell < trust.length; cell++)
      if (trust[cell]! > 0.3 && meant[cell * 3 + channel]! > 0.04)
        ratios.push(seen[cell * 3 + channel]! / meant[cell * 3 + channel]!);
    ratios.sort((a, b) => a - b);
    return ratios[ratios.length >> 1] ?? 1;
  });
  const [wide, tall] = [Math.ceil(columns / STEP) + 1, Math.ceil(rows / STEP) + 1];
  const gains = new Float32Array(wide * tall * 3);
  const veils = new Float32Array(wide * tall * 3);
  const reach = Math.ceil(SIGMA * 2.2);
  const nearness = Float32Array.from({ length: reach + 1 }, (_, far) =>
    Math.exp((-far * far) / (2 * SIGMA * SIGMA)),
  );
  // Light colours would outweigh dark ones: errors grow with the light.
  const evened = Float32Array.from(meant, (value) => 1 / (0.05 + value) ** 1.2);
  for (let j = 0; j < tall; j++) {
    for (let i = 0; i < wide; i++) {
      const [cx, cy] = [Math.min(columns - 1, i * STEP), Math.min(rows - 1, j * STEP)];
      // Weighted least squares of seen = white · (gain · meant + veil) over all channels, with ridges towards the overall
      // gain and no veil.
      const sums = overall.map((white, channel) => {
        let [n, m, mm, s, ms] = [0, 0, 0, 0, 0];
        for (let y = Math.max(0, cy - reach); y <= Math.min(rows - 1, cy + reach); y++) {
          for (let x = Math.max(0, cx - reach); x <= Math.min(columns - 1, cx + reach); x++) {
            const cell = y * columns + x;
            if (trust[cell]! <= 0) continue;
            const a = meant[cell * 3 + channel]!;
            const b = seen[cell * 3 + channel]! / white;
            const w =
              trust[cell]! *
              nearness[Math.abs(x - cx)]! *
              nearness[Math.abs(y - cy)]! *
              evened[cell * 3 + channel]!;
            n += w;
            m += w * a;
            mm += w * a * a;
            s += w * b;
            ms += w * a * b;
          }
        }
        return { n, m, mm, s, ms };
      });
      const all = (key: 'n' | 'm' | 'mm' | 's' | 'ms') => sums.reduce((sum, each) => sum + each[key], 0);
      const [aa, ab, bb] = [all('mm') + GAIN_HELD, all('m'), all('n') + VEIL_HELD];
      const [ra, rb] = [all('ms') + GAIN_HELD, all('s')];
      const whole = aa * bb - ab * ab;
      const gain = Math.max(0.03, (ra * bb - rb * ab) / whole);
      const veil = Math.max(-0.02, (aa * rb - ab * ra) / whole);
      sums.forEach(({ n, m, mm, s, ms }, channel) => {
        // How this channel differs from the others here: little, for lamps light a canvas in much the same colour.
        const told = gain * ms + veil * s + COLOUR_HELD;
        const due = gain * gain * mm + 2 * gain * veil * m + veil * veil * n + COLOUR_HELD;
        const own = overall[channel]! * Math.min(MOST_COLOUR, Math.max(1 / MOST_COLOUR, told / due));
        const at = (j * wide + i) * 3 + channel;
        gains[at] = gain * own;
        veils[at] = veil * own;
      });
    }
  }
  const light: LightField = {
    gain: new Float32Array(trust.length * 3),
    veil: new Float32Array(trust.length * 3),
  };
  for (let y = 0; y < rows; y++) {
    for (let x = 0; x < columns; x++) {
      const [px, py] = [x / STEP, y / STEP];
      const [left, top] = [Math.min(wide - 2, px | 0), Math.min(tall - 2, py | 0)];
      const [fx, fy] = [px - left, py - top];
      for (let channel = 0; channel < 3; channel++) {
        const at = (top * wide + left) * 3 + channel;
        const between = (field: Float32Array) =>
          (field[at]! * (1 - fx) + field[at + 3]! * fx) * (1 - fy) +
          (field[at + wide * 3]! * (1 - fx) + field[at + wide * 3 + 3]! * fx) * fy;
        light.gain[(y * columns + x) * 3 + channel] = between(gains);
        light.veil[(y * columns + x) * 3 + channel] = between(veils);
      }
    }
  }
  return light;
}

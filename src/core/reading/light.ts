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

/** Sums of a weighted fit of seen over meant: weight, meant, its square, seen, and both together. */
const SUMS = 5;
const [N, M, MM, S, MS] = [0, 1, 2, 3, 4] as const;
/** Sums of the cells of one class, which are all meant alike: weight, and what is seen in each channel. */
const CLASS_SUMS = 4;

/**
 * The light at each cell, from cells whose class is trusted: around each place one line is fitted for all channels through
 * what is seen over what the class is: a brightness and a veil of white light, held strongly to none, for it is a
 * reflection's alone. A fit of its own for each channel would light a whole region that was taken for another colour until
 * it is that; so would one that listens as much to cells of the same class as to others.
 * @param seen linear light of each cell, three values a cell @param classes index of the class of each cell; rows of cells
 * @param tints linear light of each class
 * @param trust weight of each cell; 0 leaves it out
 * @param ownShare how much of it counts for the light on cells of its own class, 0…1
 */
export function lightField(
  seen: Float32Array,
  classes: Int32Array,
  tints: readonly (readonly [number, number, number])[],
  trust: Float32Array,
  columns: number,
  rows: number,
  ownShare: number,
): LightField {
  const overall = [0, 1, 2].map((channel) => {
    const ratios: number[] = [];
    for (let cell = 0; cell < trust.length; cell++) {
      const meant = tints[classes[cell]!]?.[channel] ?? 0;
      if (trust[cell]! > 0.3 && meant > 0.04) ratios.push(seen[cell * 3 + channel]! / meant);
    }
    ratios.sort((a, b) => a - b);
    return ratios[ratios.length >> 1] ?? 1;
  });
  const [wide, tall] = [Math.ceil(columns / STEP) + 1, Math.ceil(rows / STEP) + 1];
  const reach = Math.ceil(SIGMA * 2.2);
  const nearness = Float32Array.from({ length: reach + STEP + 1 }, (_, far) =>
    far > reach ? 0 : Math.exp((-far * far) / (2 * SIGMA * SIGMA)),
  );
  // Light colours would outweigh dark ones: errors grow with the light.
  const evened = tints.map((tint) => tint.map((value) => 1 / (0.05 + value) ** 1.2));
  /** For each class the sums of each place. */
  const places = wide * tall;
  const sums = new Float64Array(places * tints.length * CLASS_SUMS);
  for (let cell = 0; cell < trust.length; cell++) {
    const weight = trust[cell]!;
    if (weight <= 0) continue;
    const first = classes[cell]! * places;
    const x = cell % columns;
    const y = Math.floor(cell / columns);
    const red = seen[cell * 3]! / overall[0]!;
    const green = seen[cell * 3 + 1]! / overall[1]!;
    const blue = seen[cell * 3 + 2]! / overall[2]!;
    for (let j = Math.max(0, Math.ceil((y - reach) / STEP)); j < tall; j++) {
      const down = Math.abs(Math.min(rows - 1, j * STEP) - y);
      if (j * STEP - y > reach + STEP) break;
      for (let i = Math.max(0, Math.ceil((x - reach) / STEP)); i < wide; i++) {
        if (i * STEP - x > reach + STEP) break;
        const across = Math.abs(Math.min(columns - 1, i * STEP) - x);
        const near = weight * (nearness[across] ?? 0) * (nearness[down] ?? 0);
        if (near === 0) continue;
        const own = (first + j * wide + i) * CLASS_SUMS;
        sums[own]! += near;
        sums[own + 1]! += near * red;
        sums[own + 2]! += near * green;
        sums[own + 3]! += near * blue;
      }
    }
  }
  const each = 3 * SUMS;
  /** Adds the sums of one class at a place to those of a fit, so often. */
  const add = (fit: Float64Array, at: number, place: number, k: number, times: number) => {
    const own = (k * places + place) * CLASS_SUMS;
    if (sums[own] === 0) return;
    for (let channel = 0; channel < 3; channel++) {
      const meant = tints[k]![channel]!;
      const share = times * evened[k]![channel]!;
      const weight = share * sums[own]!;
      const told = share * sums[own + 1 + channel]!;
      const to = at + channel * SUMS;
      fit[to + N]! += weight;
      fit[to + M]! += weight * meant;
      fit[to + MM]! += weight * meant * meant;
      fit[to + S]! += told;
      fit[to + MS]! += told * meant;
    }
  };
  /** The sums of all classes at each place. */
  const all = new Float64Array(places * each);
  for (let k = 0; k < tints.length; k++)
    for (let place = 0; place < places; place++) add(all, place * each, place, k, 1);
  const fit = new Float64Array(each);
  /** Gain and veil of three channels at each place as each class sees it, reckoned when they are asked for. */
  const lights = new Float32Array(places * tints.length * 6);
  const known = new Uint8Array(places * tints.length);
  const lightAt = (place: number, k: number): number => {
    const which = place * tints.length + k;
    const to = which * 6;
    if (known[which]) return to;
    known[which] = 1;
    fit.set(all.subarray(place * each, (place + 1) * each));
    add(fit, 0, place, k, ownShare - 1);
    const sum = (channel: number, what: number) => fit[channel * SUMS + what]!;
    const whole = (what: number) => sum(0, what) + sum(1, what) + sum(2, what);
    // Weighted least squares of seen = white · (gain · meant + veil) over all channels, with ridges towards the overall
    // gain and no veil.
    const [aa, ab, bb] = [whole(MM) + GAIN_HELD, whole(M), whole(N) + VEIL_HELD];
    const [ra, rb] = [whole(MS) + GAIN_HELD, whole(S)];
    const determinant = aa * bb - ab * ab;
    const gain = Math.max(0.03, (ra * bb - rb * ab) / determinant);
    const veil = Math.max(-0.02, (aa * rb - ab * ra) / determinant);
    for (let channel = 0; channel < 3; channel++) {
      // How this channel differs from the others here: little, for lamps light a canvas in much the same colour.
      const told = gain * sum(channel, MS) + veil * sum(channel, S) + COLOUR_HELD;
      const due =
        gain * gain * sum(channel, MM) +
        2 * gain * veil * sum(channel, M) +
        veil * veil * sum(channel, N) +
        COLOUR_HELD;
      const white = overall[channel]! * Math.min(MOST_COLOUR, Math.max(1 / MOST_COLOUR, told / due));
      lights[to + channel] = gain * white;
      lights[to + 3 + channel] = veil * white;
    }
    return to;
  };
  const light: LightField = {
    gain: new Float32Array(trust.length * 3),
    veil: new Float32Array(trust.length * 3),
  };
  for (let y = 0; y < rows; y++) {
    for (let x = 0; x < columns; x++) {
      const cell = y * columns + x;
      const k = classes[cell]!;
      const [px, py] = [x / STEP, y / STEP];
      const [left, top] = [Math.min(wide - 2, px | 0), Math.min(tall - 2, py | 0)];
      const [fx, fy] = [px - left, py - top];
      const place = top * wide + left;
      const [a, b] = [lightAt(place, k), lightAt(place + 1, k)];
      const [c, d] = [lightAt(place + wide, k), lightAt(place + wide + 1, k)];
      for (let channel = 0; channel < 3; channel++) {
        const between = (what: number) =>
          (lights[a + what]! * (1 - fx) + lights[b + what]! * fx) * (1 - fy) +
          (lights[c + what]! * (1 - fx) + lights[d + what]! * fx) * fy;
        light.gain[cell * 3 + channel] = between(channel);
        light.veil[cell * 3 + channel] = between(3 + channel);
      }
    }
  }
  return light;
}

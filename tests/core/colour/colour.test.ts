import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { contrastRatio, inkOn, relativeLuminance } from '../../../src/core/colour/contrast';
import { colourDifference, differenceInWords } from '../../../src/core/colour/difference';
import { readFinish } from '../../../src/core/colour/finish';
import { readColourName } from '../../../src/core/colour/names';
import { hexToRgb, mix, type Rgb, readHex, rgbToHex } from '../../../src/core/colour/rgb';

const part = fc.integer({ min: 0, max: 255 });
const rgb = fc.tuple(part, part, part) as fc.Arbitrary<Rgb>;

describe('colours as written', () => {
  it.each([
    ['#2f6f8f', '#2f6f8f'],
    ['2F6F8F', '#2f6f8f'],
    [' #abc ', '#aabbcc'],
    ['fff', '#ffffff'],
  ])('reads %s', (text, hex) => expect(readHex(text)).toBe(hex));

  it.each(['', '#12', '#1234', '#12345678', '12#345', '##abc', 'teal', '#12345g', '#1234567'])(
    'refuses %s',
    (text) => expect(readHex(text)).toBeNull(),
  );

  it('goes from hex to parts and back', () => {
    fc.assert(
      fc.property(rgb, (colour) => {
        expect(hexToRgb(rgbToHex(colour))).toEqual([...colour]);
      }),
    );
  });

  it('mixes between the two ends', () => {
    expect(mix([0, 0, 0], [100, 200, 50], 0.5)).toEqual([50, 100, 25]);
    fc.assert(
      fc.property(rgb, rgb, (a, b) => {
        expect(mix(a, b, 0)).toEqual([...a]);
        expect(mix(a, b, 1)).toEqual([...b]);
      }),
    );
  });
});

describe('contrast', () => {
  // WCAG 2.2: black on white is 21 : 1; #767676 on white is the well-known 4.54 : 1 (from memory).
  it('agrees with the ends of WCAG 2.2', () => {
    expect(contrastRatio([0, 0, 0], [255, 255, 255])).toBeCloseTo(21, 6);
    expect(contrastRatio([118, 118, 118], [255, 255, 255])).toBeCloseTo(4.54, 2);
  });

  // IEC 61966-2-1 primaries: the luminance of pure red, green and blue in linear sRGB.
  it('weighs the primaries as sRGB does', () => {
    expect(relativeLuminance([255, 0, 0])).toBeCloseTo(0.2126, 4);
    expect(relativeLuminance([0, 255, 0])).toBeCloseTo(0.7152, 4);
    expect(relativeLuminance([0, 0, 255])).toBeCloseTo(0.0722, 4);
  });

  it('always chooses an ink well above the 3 : 1 that large signs need', () => {
    fc.assert(
      fc.property(rgb, (ground) => {
        expect(contrastRatio(ground, hexToRgb(inkOn(ground)))).toBeGreaterThanOrEqual(4.2);
      }),
    );
  });
});

describe('colour difference', () => {
  it('is nothing between equal colours, alike both ways, and large between black and white', () => {
    fc.assert(
      fc.property(rgb, rgb, (a, b) => {
        expect(colourDifference(a, a)).toBeCloseTo(0, 9);
        expect(colourDifference(a, b)).toBeCloseTo(colourDifference(b, a), 9);
      }),
    );
    // Black and white differ by 100 in lightness; the weighting function of ΔE00 is 1 at L = 50.
    expect(colourDifference([0, 0, 0], [255, 255, 255])).toBeCloseTo(100, 1);
  });
});

describe('a difference in words', () => {
  it('grows from one to the next at 1, 2, 4, 7 and 15', () => {
    const words = [
      'cannot be told apart by eye',
      'seen only side by side',
      'a shade apart',
      'clearly another shade',
      'a different colour of the same kind',
      'a very different colour',
    ];
    [1, 2, 4, 7, 15].forEach((limit, i) => {
      expect(differenceInWords(limit - 1e-9)).toBe(words[i]);
      expect(differenceInWords(limit)).toBe(words[i + 1]);
    });
    expect(differenceInWords(0)).toBe(words[0]);
  });
});

describe('colours by name', () => {
  // CSS Color Module Level 4, 6.1, named colours (from memory).
  it.each([
    ['teal', '#008080'],
    [' Dark  Sea Green ', '#8fbc8f'],
    ['REBECCA PURPLE', '#663399'],
    ['black', '#000000'],
  ])('“%s” is %s', (name, hex) => expect(readColourName(name)).toBe(hex));

  it('are moved towards white or black by the word before them', () => {
    // A share of the way from 0 to 255, or from 255 to 0: 0.6, 0.45, 0.35 and 0.4, 0.3, 0.6.
    expect(readColourName('very light red')).toBe('#ff9999');
    expect(readColourName('pale red')).toBe('#ff7373');
    expect(readColourName('light red')).toBe('#ff5959');
    // The library has a dark red of its own, and none of these.
    expect(readColourName('dark lime')).toBe('#009900');
    expect(readColourName('deep lime')).toBe('#00b300');
    expect(readColourName('very dark lime')).toBe('#006600');
  });

  it('are not guessed at', () => {
    for (const name of [
      '',
      'transparent',
      'light transparent',
      '#00ff00',
      'red2',
      'rgb(1,2,3)',
      'blurple',
      'dark',
      'lightred x',
    ])
      expect(readColourName(name), name).toBeNull();
  });
});

describe('finishes', () => {
  it.each([
    ['', 'plain'],
    ['Métallisé', 'metallic'],
    ['Świecący', 'glow'],
    ['МАТОВЫЙ', 'plain'],
    ['透明', 'translucent'],
    ['AB', 'iridescent'],
    ['Rainbow', 'iridescent'],
    ['Metal', 'metallic'],
    ['glow in the dark', 'glow'],
    ['Gem', 'crystal'],
    [' Clear ', 'translucent'],
  ])('reads “%s” as %s', (text, finish) => expect(readFinish(text)).toBe(finish));

  it('does not guess at unknown words', () => expect(readFinish('sparkly')).toBeNull());
});

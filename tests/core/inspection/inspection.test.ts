import { describe, expect, it } from 'vitest';
import {
  INSPECTION_KINDS,
  inspectionKind,
  sizeInWordsAgainst,
} from '../../../src/core/inspection/inspection';

describe('a measured size', () => {
  // 2.5 mm pitch: squares ÷ 4 = cm (common practice, no source).
  const canvas = { width: 120, height: 160, pitchMm: 2.5 };
  const measured = (widthCm: number, heightCm: number, of = canvas) =>
    sizeInWordsAgainst({ widthCm, heightCm }, of);

  it('is well within what a ruler tells up to 3 mm, or 1 % of a large side', () => {
    expect(measured(30, 40)).toBe(
      '120 × 160 squares should measure 30 × 40 cm; 30 × 40 cm is well within what a ruler can tell.',
    );
    expect(measured(30.25, 39.65)).toContain('well within');
    // 1 % of 100 cm is 10 mm.
    const large = { width: 400, height: 160, pitchMm: 2.5 };
    expect(measured(100.9, 40, large)).toContain('well within');
    expect(measured(101.2, 40, large)).toContain('its width is 1.2 cm too large');
    // 1 % of 4 cm is no measure.
    expect(measured(4.2, 40, { width: 16, height: 160, pitchMm: 2.5 })).toContain('well within');
  });

  it('is told side by side where it is off', () => {
    expect(measured(29, 41.5)).toBe(
      '120 × 160 squares should measure 30 × 40 cm; its width is 1.0 cm too small and its height is 1.5 cm too large.',
    );
    expect(measured(30, 39)).toMatch(/cm; its height is 1\.0 cm too small\.$/);
  });

  it('keeps the tenth where there is one', () =>
    expect(measured(30.1, 40)).toContain('30.1 × 40 cm is well within'));
});

it('every kind of fault is found by its key', () => {
  for (const kind of INSPECTION_KINDS) expect(inspectionKind(kind.key)).toBe(kind);
});

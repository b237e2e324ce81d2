import { describe, expect, it } from 'vitest';
import { day, dusk, painted, stage, unitColour, unitColours } from './tokens';

/** Relative luminance and contrast as WCAG 2.2 defines them. */
function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((i) => {
    const c = Number.parseInt(hex.slice(i, i + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
}
function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return (light! + 0.05) / (dark! + 0.05);
}

describe.each([
  ['day', day, unitColours.day],
  ['dusk', dusk, unitColours.dusk],
] as const)('the desk by %s', (_, of, units) => {
  const grounds = [of.paper, of.sheet, of.sheetDim, of.field];

  it('has text that is read on all its grounds', () => {
    for (const ground of [...grounds, of.tideWash, of.lampWash]) {
      expect(contrast(of.ink, ground)).toBeGreaterThan(7);
      expect(contrast(of.inkSoft, ground)).toBeGreaterThanOrEqual(4.5);
    }
    for (const ground of grounds) {
      expect(contrast(of.tide, ground)).toBeGreaterThanOrEqual(4.5);
      expect(contrast(of.rust, ground)).toBeGreaterThanOrEqual(4.5);
      expect(contrast(of.lampDeep, ground)).toBeGreaterThanOrEqual(4.5);
    }
    expect(contrast(of.onTide, of.tide)).toBeGreaterThanOrEqual(4.5);
    expect(contrast(of.onLamp, of.lamp)).toBeGreaterThanOrEqual(4.5);
    expect(contrast(of.sheet, of.ink)).toBeGreaterThanOrEqual(7);
    expect(contrast(of.rust, of.rustWash)).toBeGreaterThanOrEqual(4.5);
    expect(contrast(of.lampDeep, of.lampWash)).toBeGreaterThanOrEqual(4.5);
    expect(contrast(of.nightText, of.night)).toBeGreaterThan(7);
    expect(contrast(of.nightSoft, of.nightRaised)).toBeGreaterThanOrEqual(4.5);
  });

  it('has edges of what can be worked that are seen', () => {
    for (const ground of grounds) expect(contrast(of.lineStrong, ground)).toBeGreaterThanOrEqual(2.6);
  });

  it('has unit colours that are read on a field', () => {
    for (const colour of units) expect(contrast(colour, of.field)).toBeGreaterThanOrEqual(4.5);
  });
});

describe('colours', () => {
  it('are the same places by day and by dusk', () => {
    expect(Object.keys(dusk).sort()).toEqual(Object.keys(day).sort());
    expect(unitColours.dusk).toHaveLength(unitColours.day.length);
  });

  it('are told to a canvas as they are', () => {
    expect(painted('var(--tide)', false)).toBe(day.tide);
    expect(painted('var(--tide)', true)).toBe(dusk.tide);
    expect(painted(unitColour(9), true)).toBe(unitColours.dusk[1]);
    expect(painted('#123456', true)).toBe('#123456');
  });

  it('of the stage are read from afar', () => {
    for (const text of [stage.text, stage.soft, stage.lamp, stage.wrong]) {
      expect(contrast(text, stage.ground)).toBeGreaterThanOrEqual(7);
    }
  });
});

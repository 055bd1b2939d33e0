import { describe, expect, test } from 'vitest';
import { checkCss } from '../site/check-css.ts';
import { contrastOf, contrasts } from './contrast.ts';
import { STARTS, lookSpec } from './look-spec.ts';
import { sheetOf, tokensOf } from './sheet.ts';

describe.each(STARTS)('the starting style %s', (start) => {
  const look = lookSpec.parse({ start });

  test('has words that can be read on every ground, by day and in the dark', () => {
    const { light, dark } = tokensOf(look);
    for (const colours of [light, dark])
      expect(contrasts(colours).filter(({ isEnough }) => !isEnough)).toEqual([]);
  });

  test('is a style sheet as a site may have it, and names no property that it does not give', () => {
    const css = sheetOf({ css: '', look });
    expect(checkCss(css)).toEqual([]);
    const given = new Set([...css.matchAll(/(--[a-z0-9-]+):/gi)].map(([, name]) => name));
    for (const [, name] of css.matchAll(/var\((--[a-z0-9-]+)\)/gi)) expect(given).toContain(name);
  });
});

describe('a style sheet', () => {
  const look = lookSpec.parse({ start: 'meadow', light: { accent: '#123456' }, radius: 3 });

  test('has what the look says, else what it starts with, and the site’s own rules last', () => {
    const css = sheetOf({ css: 'p { color: red }', look });
    expect(css).toContain('--accent: #123456;');
    expect(css).toContain('--radius: 3px;');
    expect(css).toContain(`--ink: ${tokensOf(look).light.ink};`);
    expect(css.endsWith('p { color: red }')).toBe(true);
  });

  test('is the site’s own rules alone where it has no look, and a starting style where it has neither', () => {
    expect(sheetOf({ css: 'p { color: red }' })).toBe('p { color: red }');
    expect(sheetOf({ css: ' ' })).toBe(`${sheetOf({ css: '', look: lookSpec.parse({}) })}\n `);
  });

  test('fonts of the site’s own are made known, and stand before what machines have', () => {
    const fonts = [
      { name: 'Mine', file: 'mine-12345678.woff2', weight: [200, 800] },
      { name: 'Mine', file: 'lean.woff2', slant: 'italic' },
    ];
    const own = lookSpec.parse({ fonts, headingFace: 'Mine' });
    const css = sheetOf({ css: '', look: own });
    expect(checkCss(css)).toEqual([]);
    expect(css.split('\n').slice(0, 2)).toEqual([
      '@font-face { font-family: "Mine"; src: url("/style/mine-12345678.woff2") format("woff2"); font-weight: 200 800; font-display: swap; }',
      '@font-face { font-family: "Mine"; src: url("/style/lean.woff2") format("woff2"); font-weight: 400; font-style: italic; font-display: swap; }',
    ]);
    expect(css).toContain('--heading-face: "Mine", system-ui,');
  });

  test.each([
    [{ light: { accent: 'red; } body { background: url(//x)' } }],
    [{ textFace: 'Comic' }],
    [{ textFace: 'constructor' }],
    [{ fonts: [{ name: 'plain', file: 'a.woff2' }] }],
    [{ fonts: [{ name: 'Mine"; } x {', file: 'a.woff2' }] }],
    [{ fonts: [{ name: 'Mine', file: '../a.woff2' }] }],
    [{ fonts: [{ name: 'Mine', file: 'a.woff2', weight: [0, 2000] }] }],
    [{ text: 400 }],
    [{ start: 'other' }],
  ])('takes no look like %j', (given) => {
    expect(lookSpec.safeParse(given).success).toBe(false);
  });
});

test('contrast is that of WCAG, whichever comes first', () => {
  expect(contrastOf('#000000', '#ffffff')).toBeCloseTo(21, 5);
  expect(contrastOf('#777777', '#ffffff')).toBeCloseTo(4.48, 2);
  expect(contrastOf('#ffffff', '#777777')).toBeCloseTo(4.48, 2);
});

test.each([
  ['@import url(x.css);', 'import'],
  ['@IMP\\4fRT "x";', 'import'],
  ['a { background: url(https://elsewhere.example/x) }', 'files of this site'],
  ['a { background: u\\72l(//elsewhere.example/x) }', 'files of this site'],
  ['a { background: image-set("x.png" 1x) }', 'image-set'],
  ['a { width: expression(alert(1)) }', 'scripts'],
  ['a { color: red', 'not CSS'],
])('the rules %s are refused', (css, said) => {
  expect(checkCss(css)[0]).toMatchObject({ code: 'style-refused', path: 'style/css' });
  expect(checkCss(css)[0]!.message).toContain(said);
});

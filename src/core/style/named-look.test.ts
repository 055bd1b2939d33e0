import { expect, test } from 'vitest';
import { checkCss } from '../site/check-css.ts';
import { lookSpec } from './look-spec.ts';
import {
  NAMED_PROPERTIES,
  STYLED,
  type StyledSort,
  namedCss,
  namedLookSpec,
} from './named-look.ts';
import { sheetOf } from './sheet.ts';

const SORTS = Object.keys(STYLED) as StyledSort[];
const look = lookSpec.parse({});

test('every choice of every property is CSS that pages may have, and names what the sheet gives', () => {
  const styles = NAMED_PROPERTIES.flatMap(([name, { on, options }]) =>
    on.flatMap((sort) =>
      Object.keys(options).map((choice) => ({
        key: `${name}-${sort}-${choice}`.toLowerCase(),
        on: sort,
        look: namedLookSpec.parse({ [name]: choice }),
      })),
    ),
  );
  for (const design of [{ look, css: '' }, { css: 'p { margin: 0 }' }]) {
    const css = sheetOf({ ...design, styles });
    expect(checkCss(css)).toEqual([]);
    const given = new Set([...css.matchAll(/(--[a-z0-9-]+):/gi)].map(([, name]) => name));
    for (const [, name] of css.matchAll(/var\((--[a-z0-9-]+)\)/gi)) expect(given).toContain(name);
    for (const { key } of styles) expect(css).toContain(`.style-${key} {`);
  }
});

test('a property says nothing of what it is not for', () => {
  for (const sort of SORTS)
    for (const [name, { on, options }] of NAMED_PROPERTIES) {
      const own = namedLookSpec.parse({ [name]: Object.keys(options)[0] });
      expect(namedCss([{ key: 'one', on: sort, look: own }]) !== '').toBe(on.includes(sort));
    }
});

test('what has a colour of its own takes that of a coloured style', () => {
  const own = namedLookSpec.parse({ ground: 'accent', colour: 'ground', room: 'usual' });
  expect(namedCss([{ key: 'loud', on: 'block', look: own }])).toBe(
    '.style-loud { color: var(--ground); background: var(--accent); padding: var(--s3) var(--s4); }\n' +
      '.style-loud :is(a, h1, h2, h3, h4, dt, figcaption, .label, .credit, .byline)' +
      ' { color: inherit; }',
  );
});

test('the rules of a site stand after those of named styles; without a look, they are as before', () => {
  const styles = [
    { key: 'lead', on: 'paragraph' as const, look: namedLookSpec.parse({ size: 'large' }) },
  ];
  const css = sheetOf({ css: 'p { color: red }', look, styles });
  expect(css.indexOf('.style-lead')).toBeLessThan(css.indexOf('p { color: red }'));
  expect(sheetOf({ css: 'p { color: red }', styles: [{ key: 'lead', on: 'paragraph' }] })).toBe(
    'p { color: red }',
  );
});

test.each([[{ size: 'enormous' }], [{ glow: 'yes' }], [{ colour: '#123456' }]])(
  'no style looks like %j',
  (given) => expect(namedLookSpec.safeParse(given).success).toBe(false),
);

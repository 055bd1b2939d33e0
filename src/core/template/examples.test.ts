import { expect, test } from 'vitest';
import { designOf } from '../../../tests/helpers/design.ts';
import { BLOCKS } from './blocks/index.ts';
import { examplesHtml } from './examples.ts';

test('the examples of a style show every block that stands on pages, and the styles by name', () => {
  const styles = [
    { key: 'loud', on: 'words' },
    { key: 'aside', label: 'Beside the point', on: 'paragraph' },
    { key: 'wide', on: 'picture' },
    { key: 'panel', on: 'block' },
  ];
  const html = examplesHtml(designOf({ styles }));
  for (const { label } of BLOCKS.filter(({ in: place }) => place === undefined))
    expect(html).toContain(`<h3>${label}</h3>`);
  expect(html).toContain('<span class="style-loud">Loud</span>');
  expect(html).toContain('<p class="style-aside">Beside the point');
  expect(html).toContain('<svg class="style-wide"');
  expect(html).toContain('<div class="style-panel"><h3>Panel</h3>');
});

test('nothing in them is fetched, and no link leads away', () => {
  const html = examplesHtml(designOf({}));
  expect(html).not.toMatch(/<img|srcset|url\(|href="(?!#content")/);
});

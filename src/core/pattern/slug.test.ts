import fc from 'fast-check';
import { expect, test } from 'vitest';
import { slugText } from './slug.ts';

// A change here changes addresses of every site: raise the design's slugVersion instead of
// editing what stands.
test.each([
  ['Blue Pea', 'en', 'blue-pea'],
  ['Crème brûlée', 'en', 'creme-brulee'],
  ["Gardener's Delight", 'en', 'gardener-s-delight'],
  ['Salt & Pepper', 'en', 'salt-pepper'],
  ['Grüße aus Köln', 'de', 'gruesse-aus-koeln'],
  ['Grüße aus Köln', 'en', 'grusse-aus-koln'],
  ['Ärzte', 'de-AT', 'aerzte'],
  ['Smørrebrød', 'en', 'smorrebrod'],
  ['Æther Œuvre Þing Ðe Łódź', 'en', 'aether-oeuvre-thing-de-lodz'],
  ['Привет мир', 'en', 'privet-mir'],
  ['Ελλάδα', 'en', 'ellada'],
  ['北京', 'en', 'beijing'],
  ['½ price', 'en', '1-2-price'],
  ['★★★', 'en', ''],
  ['  --a__b--  ', 'en', 'a-b'],
  ['x²', 'en', 'x2'],
])('%s in %s becomes %s', (text, language, slug) => {
  expect(slugText(text, language)).toBe(slug);
});

test('composed and decomposed text make the same slug, and a slug stays as it is', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), (text) => {
      const slug = slugText(text, 'en');
      expect(slug).toMatch(/^([a-z0-9]+(-[a-z0-9]+)*)?$/);
      expect(slugText(text.normalize('NFD'), 'en')).toBe(slugText(text.normalize('NFC'), 'en'));
      expect(slugText(slug, 'en')).toBe(slug);
    }),
  );
});

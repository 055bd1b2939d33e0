import { expect, test } from 'vitest';
import { stumblesIn } from './hygiene.ts';

test.each([
  ['<h1>A</h1><h2>B</h2><h3>C</h3><h2>D</h2>', []],
  ['<h2>B</h2>', ['No heading of level 1 says what the page is.']],
  ['<h1>A</h1><h1>B</h1>', ['2 headings of level 1: a page has one.']],
  [
    '<h1>A</h1><h4>B</h4><h4>C</h4><h6>D</h6><h1',
    [
      'A heading of level 4 follows one of level 1: a level is passed over.',
      'A heading of level 6 follows one of level 4: a level is passed over.',
    ],
  ],
  ['<h1>A</h1><p id="x"></p><p id="x"></p>', ['The id “x” stands twice.']],
  ['<h1>A</h1><img src="/a" alt="">', []],
  ['<h1>A</h1><img src="/a">', ['The picture /a has no alternative text.']],
  ['<h1>A</h1><a href="/b"> </a>', ['The link to /b has no words.']],
  ['<h1>A</h1><a href="/b"><img src="/a" alt="B"></a><a href="/c" aria-label="C"></a>', []],
])('of %s are told: %j', (html, told) => {
  expect(stumblesIn(html)).toEqual(told);
});

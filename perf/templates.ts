import assert from 'node:assert/strict';
import { render } from '@/core/site/render.ts';
import { RowCache } from '@/server/store/row-cache.ts';
import { guideByHand, listByHand } from './by-hand.ts';
import { GUIDE, LIST, type Demo, dataOf, remembering } from './demo-pages.ts';
import { guideByEta, listByEta } from './eta-peer.ts';
import { type PerfRow, reported, row, share } from './measure.ts';
import { guideByReact, listByReact } from './react-peer.ts';

/** How often a page is made in a round: about a hundredth of a second. */
const TIMES = 60;
const BEFORE = 2000;

/** A page, made by us from data at hand and from the database, and by others. */
interface Measured {
  name: string;
  path: string;
  byHand: () => string;
  byReact: () => string;
  byEta: () => string;
  /** How many times as fast as React's static markup it is to be. */
  react: number;
}

/** Whole pages of the demo, in its own frame, as bytes to be sent, against others' of the same. */
export function measureTemplates(demo: Demo): PerfRow[] {
  const { frame, guide, list } = dataOf(demo);
  const pages: Measured[] = [
    {
      ...{ name: 'article-like page of the demo', path: GUIDE, react: 2.5 },
      byHand: () => guideByHand(frame, guide),
      byReact: () => guideByReact(frame, guide),
      byEta: () => guideByEta(frame, guide),
    },
    {
      ...{ name: 'list of 20 cards of the demo', path: LIST, react: 4 },
      byHand: () => listByHand(frame, list),
      byReact: () => listByReact(frame, list),
      byEta: () => listByEta(frame, list),
    },
  ];
  return pages.flatMap((page) => measured(demo, page));
}

function measured({ site, reader, view, at }: Demo, page: Measured): PerfRow[] {
  const { name, path, byHand, byReact, byEta } = page;
  const atHand = remembering(reader);
  const rows = new RowCache();
  const fresh = (): string => render(site, view.readerOf(site, rows), { path, at }).body;
  const first = (): string => render(site, view.readerOf(site), { path, at }).body;
  const ours = (): string => {
    atHand.again();
    return render(site, atHand.reader, { path, at }).body;
  };
  render(site, atHand.reader, { path, at });
  assert.equal(ours(), byHand());
  assert.equal(byEta(), byHand());
  assert.equal(inner(byReact()), inner(byHand()));
  const against = (peer: () => string, own: () => string): number => share(often(peer), often(own));
  return [
    row(`${name}, against concatenation by hand (speed)`, against(byHand, ours), '≥', 0.9),
    row(`${name}, against React’s static markup`, against(byReact, ours), '≥', page.react),
    row(`${name}, against eta, compiled before`, against(byEta, ours), '≥', 1.1),
    row(`${name}, from the database against data at hand`, against(ours, fresh), '≥', 0.45),
    reported(`${name}, the first one after a write against data at hand`, against(ours, first)),
  ];
}

/** Made many times, each as the bytes that are sent; as often before, as a server does. */
function often(make: () => string): () => void {
  for (let i = 0; i < BEFORE; i++) make();
  return () => {
    for (let i = 0; i < TIMES; i++) assert.ok(Buffer.from(make()).length > 0);
  };
}

/**
 * HTML without how it is written: ends of elements, line breaks, when pictures are fetched, the
 * order of what a form and a field say.
 */
function inner(html: string): string {
  const inOrder = (_: string, name: string, said: string): string =>
    `<${name} ${(said.match(/[\w-]+="[^"]*"/g) ?? []).sort().join(' ')}>`;
  return html
    .replace(/<(form|input) ([^>]*?)\/?>/g, inOrder)
    .replaceAll(/\n| loading="lazy"|(?<=<[^>]*)\/(?=>)/g, '')
    .replaceAll('charSet', 'charset')
    .replaceAll('srcSet', 'srcset')
    .replaceAll('hrefLang', 'hreflang')
    .replaceAll('&#x27;', '&#39;');
}

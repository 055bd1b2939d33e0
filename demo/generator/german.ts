/** What the demo says in German: of its design, its subjects, its pictures and its entries. */
import { readFileSync, readdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { parse } from 'yaml';
import type { Texts } from '../../src/core/design/language-spec.ts';
import { textsOf } from '../../src/core/design/texts.ts';
import { readDesign } from '../../src/server/files/read-design.ts';
import type { Subject } from './content.ts';

const file = fileURLToPath(new URL('content/german.yaml', import.meta.url));

/** What an entry says in German, by fields, and since when. */
type Words = Record<string, string>;
const WORDS = parse(readFileSync(file, 'utf8')) as Record<string, Words>;

/** What a file says of an entry under `entry`, with its German words where it has some. */
export function inGerman({ live, ...entry }: { id: string; live?: string | unknown[] }): object {
  const all = live === undefined ? [] : [live].flat();
  if (!isInGerman(entry.id)) return all.length > 0 ? { ...entry, live } : entry;
  const { live: since = 'today - P14D at 08:00/', ...de } = WORDS[entry.id]!;
  const [from, to] = since.split('/');
  const german = { from, ...(to ? { to } : {}), language: 'de' };
  return { ...entry, live: [...all, german], languages: { de } };
}

/** Whether an entry has German words. */
export const isInGerman = (id: string): boolean => Object.hasOwn(WORDS, id);

/** What a variety is called in German; its own name where it has none. */
export const germanTitle = ({ id, title }: { id: string; title: string }): string =>
  WORDS[id]?.title ?? title;

const TEXTS: Record<string, string> = {
  'Marrowdale Seed Library': 'Saatgutbibliothek Marrowdale',
  'Borrow seed, grow it, bring some back.': 'Saatgut leihen, anbauen, etwas zurückbringen.',
  // Types and fields
  Grower: 'Erhalter',
  Growers: 'Erhalter',
  Guide: 'Anleitung',
  Guides: 'Anleitungen',
  Notice: 'Mitteilung',
  Notices: 'Mitteilungen',
  Page: 'Seite',
  Pages: 'Seiten',
  'Swap day': 'Tauschtag',
  'Swap days': 'Tauschtage',
  Tip: 'Tipp',
  Tips: 'Tipps',
  Variety: 'Sorte',
  Varieties: 'Sorten',
  Village: 'Dorf',
  Starts: 'Beginn',
  Ends: 'Ende',
  Place: 'Ort',
  Family: 'Familie',
  Traits: 'Eigenschaften',
  Month: 'Monat',
  'Latin name': 'Lateinischer Name',
  'Sow from': 'Aussaat ab',
  'Sow until': 'Aussaat bis',
  'Days to harvest': 'Tage bis zur Ernte',
  Difficulty: 'Schwierigkeit',
  Easy: 'Einfach',
  'Some care': 'Etwas Pflege',
  Demanding: 'Anspruchsvoll',
  'Packets in stock': 'Vorrätige Tütchen',
  Companions: 'Gute Nachbarn',
  'companion of': 'Nachbar von',
  'Saved by': 'Erhalten von',
  saves: 'erhält',
  growers: 'Erhalter',
  'Places left': 'Freie Plätze',
  Since: 'Seit',
  // Addresses
  '/growers/{name}': '/erhalter/{name}',
  '/growers': '/erhalter',
  '/guides/{year(entry.published)}/{title}': '/anleitungen/{year(entry.published)}/{title}',
  '/guides': '/anleitungen',
  '/swap-days/{date(starts, "yyyy-MM-dd")}-{title}':
    '/tauschtage/{date(starts, "yyyy-MM-dd")}-{title}',
  '/swap-days': '/tauschtage',
  '/varieties/{family.slug}/{title}': '/sorten/{family.slug}/{title}',
  '/varieties': '/sorten',
  '/traits': '/eigenschaften',
  '/search': '/suche',
  '/sow-now': '/jetzt-aussaeen',
  '/staff-picks': '/empfehlungen',
  // Listings and titles
  '{title}[ ({latinName})] · {site.name}': '{title}[ ({latinName})] · Marrowdale',
  '{title} · {site.name}': '{title} · Marrowdale',
  '{name} · {site.name}': '{name} · Marrowdale',
  '{title}, {date(starts, "d MMMM yyyy")} · {site.name}':
    '{title}, {date(starts, "d. MMMM yyyy")} · Marrowdale',
  'All varieties': 'Alle Sorten',
  'Nothing here at the moment.': 'Hier ist gerade nichts.',
  'Everything the library lends, from A to Z.': 'Alles, was die Bibliothek verleiht, von A bis Z.',
  'All varieties · {site.name}': 'Alle Sorten · {site.name}',
  'Every variety the library lends.': 'Jede Sorte, die die Bibliothek verleiht.',
  'Soonest to sow': 'Bald auszusäen',
  'Quickest to harvest': 'Am schnellsten reif',
  'Coming up': 'Demnächst',
  'No dates for now.': 'Zurzeit keine Termine.',
  'How things are done here, newest first.': 'Wie man es hier macht, das Neueste zuerst.',
  'Sowing, growing, saving, storing and swapping, as it is done here.':
    'Säen, anbauen, gewinnen, lagern und tauschen, wie man es hier macht.',
  'Guides of {value} · {site.name}': 'Anleitungen von {value} · {site.name}',
  'What was written in {value}.': 'Was {value} geschrieben wurde.',
  'No notices.': 'Keine Mitteilungen.',
  Search: 'Suche',
  'Nothing has these words.': 'Nichts enthält diese Wörter.',
  'Varieties, guides, growers and pages, the newest first.':
    'Sorten, Anleitungen, Menschen und Seiten, das Neueste zuerst.',
  'Sow this month': 'Jetzt aussäen',
  'Nothing to sow today. Sharpen the hoe.': 'Heute gibt es nichts zu säen. Schärfen Sie die Hacke.',
  'What can go into the ground today, most urgent first.':
    'Was heute in den Boden kann, das Dringendste zuerst.',
  'Staff picks': 'Empfehlungen',
  'What the people at the desk would sow first, and read beforehand.':
    'Was die Leute am Tresen zuerst säen würden, und vorher lesen.',
  'By trait': 'Nach Eigenschaft',
  'What varieties are good for.': 'Wofür Sorten gut sind.',
  'Varieties that have this: {value.count}.': 'Sorten mit dieser Eigenschaft: {value.count}.',
  // Templates
  'Write to us': 'Schreiben Sie uns',
  'On the shelf': 'Im Regal',
  Read: 'Lesen',
  '[{village.name}, ]since {year(since)}': '[{village.name}, ]seit {year(since)}',
  Saves: 'Erhält',
  '[{topic.name}][ · {minutes} min]': '[{topic.name}][ · {minutes} Min.]',
  '[{date(entry.published, "long")}][ · {minutes} min]':
    '[{date(entry.published, "long")}][ · {minutes} Min.]',
  'Seed for this': 'Saatgut dafür',
  'Sow now': 'Aussaat',
  About: 'Über uns',
  Sow: 'Aussaat',
  '{place}[ · {placesLeft} places left]': '{place}[ · {placesLeft} freie Plätze]',
  '{date(starts, "EEEE d MMMM")}': '{date(starts, "EEEE, d. MMMM")}',
  'EEE d MMM, HH:mm': 'EEE, d. MMM, HH:mm',
  'Grows well beside': 'Wächst gut neben',
  'Named as a companion by': 'Als Nachbar genannt von',
  'Read about it': 'Darüber lesen',
  '[Seed of {title} is kept by {savedBy.name}, {savedBy.village.name}.]':
    '[Saatgut von {title} erhält {savedBy.name}, {savedBy.village.name}.]',
  // Subjects
  Legumes: 'Hülsenfrüchte',
  Beans: 'Bohnen',
  Peas: 'Erbsen',
  Roots: 'Wurzeln',
  Carrots: 'Möhren',
  Beets: 'Rüben',
  Fruits: 'Fruchtgemüse',
  Tomatoes: 'Tomaten',
  Squashes: 'Kürbisse',
  Leaves: 'Blattgemüse',
  Alliums: 'Zwiebelgewächse',
  Onions: 'Zwiebeln',
  Leeks: 'Lauch',
  Herbs: 'Kräuter',
  Climbing: 'Kletternd',
  Dwarf: 'Niedrig',
  Hardy: 'Winterhart',
  'Keeps well': 'Lagerfähig',
  'For pots': 'Für Töpfe',
  'Good for drying': 'Zum Trocknen',
  Sowing: 'Säen',
  Growing: 'Anbauen',
  Saving: 'Gewinnen',
  Storing: 'Lagern',
  Swapping: 'Tauschen',
};

/** Subjects with their German names. */
export function subjectsInGerman(subjects: readonly Subject[]): object[] {
  return subjects.map(({ below, ...subject }) => ({
    ...subject,
    ...(Object.hasOwn(TEXTS, subject.name)
      ? { languages: { de: { name: TEXTS[subject.name] } } }
      : {}),
    ...(below ? { below: subjectsInGerman(below) } : {}),
  }));
}

/** What German says of the design in a site folder. */
export function germanOf(folder: string): object {
  const all = readdirSync(folder, { recursive: true, withFileTypes: true });
  const files = all
    .filter((entry) => entry.isFile())
    .map(({ parentPath, name }) => `${parentPath}/${name}`.slice(folder.length + 1));
  const { design } = readDesign(folder, files);
  const texts: Record<string, Texts> = {};
  for (const { part, property, text } of textsOf(design!)) {
    if (!Object.hasOwn(TEXTS, text)) continue;
    let said = (texts[part] ??= {});
    const names = property.split('.');
    for (const name of names.slice(0, -1)) said = (said[name] ??= {}) as Texts;
    said[names.at(-1)!] = TEXTS[text]!;
  }
  return { key: 'de', texts };
}

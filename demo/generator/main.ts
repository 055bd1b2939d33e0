// Writes the demo site folder: npm run demo:generate. `--varieties N --out DIR` makes a large one
// for measurements.
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { stringify } from 'yaml';
import {
  FAMILIES,
  GROWERS,
  GUIDES,
  NOTICES,
  PAGES,
  PICKS,
  SWAP_DAYS,
  TOPICS,
  TRAITS,
  VARIETIES,
  VILLAGES,
} from './content.ts';
import type { Variety } from './variety.ts';
import { DESIGN } from './design.ts';
import { fonts } from './fonts.ts';
import { germanOf, germanTitle, inGerman, isInGerman, subjectsInGerman } from './german.ts';
import { inParts, manyVarieties } from './many.ts';
import { growerPicture, seedPicture } from './pictures.ts';

const here = fileURLToPath(new URL('.', import.meta.url));
const { values: args } = parseArgs({
  options: {
    varieties: { type: 'string' },
    out: { type: 'string', default: join(here, '../site') },
  },
});
const out = args.out;

function write(path: string, content: string | Buffer): void {
  mkdirSync(dirname(join(out, path)), { recursive: true });
  writeFileSync(join(out, path), content);
}

const yaml = (value: unknown): string => stringify(value, { lineWidth: 120 });
const markdown = (front: object, body: string): string => `---\n${yaml(front)}---\n\n${body}\n`;
const days = (n: number): string => (n < 0 ? `today - P${-n}D` : `today + P${n}D`);

function varietyFile(v: Variety): string {
  return markdown(
    {
      entry: inGerman({ id: v.id, ...historyOf(v) }),
      title: v.title,
      latinName: v.latin,
      summary: v.summary,
      picture: `${v.id}.webp`,
      family: v.family,
      traits: v.traits,
      sowFrom: days(v.sow[0]),
      sowUntil: days(v.sow[1]),
      daysToHarvest: v.days,
      difficulty: v.ease,
      stock: v.stock,
      companions: v.companions,
      savedBy: v.grower,
    },
    v.story,
  );
}

/** When a variety was written and is public. */
function historyOf({ older, saved, plans, live }: Variety) {
  const planned = plans ? { plans } : {};
  if (!older) return { live, ...planned };
  const values = {
    ...(older.title ? { title: older.title } : {}),
    ...(older.summary ? { summary: older.summary } : {}),
  };
  return {
    created: older.saved,
    saved,
    revisions: [{ saved: older.saved, values }],
    ...(live.length > 0 ? { live: live.map((l) => ({ from: l.split('/')[0], revision: 1 })) } : {}),
    ...planned,
  };
}

function csv(rows: Record<string, string | number>[]): string {
  const names = Object.keys(rows[0]!);
  const cell = (v: string | number): string =>
    /[",\n]/.test(String(v)) ? `"${String(v).replaceAll('"', '""')}"` : String(v);
  return (
    [names.join(','), ...rows.map((r) => names.map((n) => cell(r[n]!)).join(','))].join('\n') + '\n'
  );
}

rmSync(out, { recursive: true, force: true });
for (const [file, value] of Object.entries(DESIGN)) write(file, yaml(value));
for (const { key, ...rest } of PICKS) write(`picks/${key}.yaml`, yaml({ key, ...rest }));
for (const [key, label, kind, subjects] of [
  ['families', 'Families', 'tree', FAMILIES],
  ['topics', 'Topics', 'tree', TOPICS],
  ['traits', 'Traits', 'tags', TRAITS],
] as const)
  write(`subjects/${key}.yaml`, yaml({ key, label, kind, subjects: subjectsInGerman(subjects) }));
let style = readFileSync(join(here, 'style.css'), 'utf8');
for (const [called, { name, content }] of Object.entries(await fonts())) {
  write(`style/${name}`, content);
  style = style.replace(called, name);
}
write('style.css', style);

const alts: Record<string, object> = {};
const said = (alt: string, german: string): object => ({ alt, languages: { de: { alt: german } } });
for (const v of VARIETIES) {
  write(`media/${v.id}.webp`, await seedPicture(v));
  alts[`${v.id}.webp`] = said(
    `Seeds of ${v.title}, drawn in two inks`,
    `Samen von ${germanTitle(v)}, in zwei Farben gezeichnet`,
  );
  write(`entries/variety/${v.id}.md`, varietyFile(v));
}
for (const g of GROWERS) {
  write(`media/grower-${g.id}.webp`, await growerPicture(g));
  alts[`grower-${g.id}.webp`] = said(
    `The initials of ${g.name} between rows of seed`,
    `Die Initialen von ${g.name} zwischen Saatreihen`,
  );
  write(
    `entries/grower/${g.id}.yaml`,
    yaml({
      entry: inGerman({ id: g.id, live: g.live }),
      name: g.name,
      portrait: `grower-${g.id}.webp`,
      bio: g.bio,
      village: g.village,
      since: g.since,
    }),
  );
}
write('media/alt.yaml', yaml(alts));
write(
  'entries/village.yaml',
  yaml(VILLAGES.map(({ id, live, name }) => ({ entry: { id, live }, name }))),
);
for (const g of GUIDES)
  write(
    `entries/guide/${g.id}.md`,
    markdown(
      {
        entry: inGerman({ id: g.id, live: g.live }),
        title: g.title,
        ...(g.summary ? { summary: g.summary } : {}),
        topic: g.topic,
        varieties: g.varieties,
      },
      g.body,
    ),
  );
write(
  'entries/settings/library.yaml',
  yaml({
    entry: inGerman({ id: 'library', live: 'today - P340D' }),
    title: 'Marrowdale',
    contact: 'The seed room, behind Marrowdale Hall. Saturdays, ten until two.',
    letters: 'mailto:seedroom@marrowdale.example',
  }),
);
for (const { id, live, places: placesLeft, ...fields } of SWAP_DAYS)
  if (isInGerman(id))
    write(
      `entries/swap-day/${id}.yaml`,
      yaml({ entry: inGerman({ id, live }), ...fields, placesLeft }),
    );
write(
  'entries/swap-day.csv',
  csv(
    SWAP_DAYS.filter(({ id }) => !isInGerman(id)).map((s) => ({
      'entry.id': s.id,
      'entry.live': s.live.join(';'),
      title: s.title,
      starts: s.starts,
      ends: s.ends,
      place: s.place,
      text: s.text,
      placesLeft: s.places,
    })),
  ),
);
write(
  'entries/notice.json',
  `${JSON.stringify(
    NOTICES.map(({ id, live, ...fields }) => ({ entry: inGerman({ id, live }), ...fields })),
    null,
    2,
  )}\n`,
);
for (const p of PAGES)
  write(
    `entries/page/${p.id}.md`,
    markdown(
      {
        entry: inGerman({ id: p.id, live: p.live }),
        title: p.title,
        ...(p.within ? { parent: p.within } : {}),
      },
      p.body,
    ),
  );
write(
  'entries/front-page/welcome.yaml',
  yaml({
    entry: inGerman({ id: 'welcome', live: 'today - P340D' }),
    title: 'Seed is for sowing, then for giving back',
    lead: 'Sixty varieties that grow well in Marrowdale, lent by the people who keep them.',
  }),
);
write('languages/de.yaml', yaml(germanOf(out)));
if (args.varieties !== undefined)
  // Files have a limit of bytes.
  for (const [i, part] of inParts(manyVarieties(Number(args.varieties)), 200_000).entries())
    write(`entries/variety/many${i === 0 ? '' : `-${i + 1}`}.csv`, csv(part));
console.log(`Wrote ${out}`);

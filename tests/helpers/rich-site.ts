import type { Files } from './folder.ts';

/**
 * What a random site may have besides: a frame that shows lists, cards, references to any type,
 * pages that lead to the listings of their subjects, redirects, and other answers of what retired.
 */
export const RICH_FILES: Files = {
  'types/story.json': {
    key: 'story',
    address: '/stories/{about.title ?? "all"}/{title}',
    template: 'story',
    naming: 'title',
    summary: 'lead',
    retired: { path: '/now' },
    timing: [
      { do: 'publish', from: 'when', after: '-P3D' },
      {
        do: 'retire',
        from: 'entry.published',
        after: 'P60D',
        where: { field: 'title', op: 'is-not', value: 'Sun' },
      },
    ],
    seo: { title: '{told}[ · {about.title}]', description: '{limit(plain(body), 60)}' },
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'lead', kind: 'paragraphs' },
      { key: 'body', kind: 'richtext' },
      { key: 'about', kind: 'reference' },
      { key: 'traits', kind: 'tags', set: 'traits' },
      { key: 'family', kind: 'category', set: 'family' },
      { key: 'when', kind: 'date' },
      { key: 'see', kind: 'link' },
      {
        key: 'parts',
        kind: 'group',
        many: true,
        fields: [
          { key: 'name', kind: 'text' },
          { key: 'who', kind: 'reference', types: ['grower'] },
          { key: 'marks', kind: 'tags', set: 'traits' },
          { key: 'on', kind: 'date' },
          { key: 'inner', kind: 'group', fields: [{ key: 'see', kind: 'link' }] },
        ],
      },
      { key: 'said', kind: 'computed', pattern: '{title}[ on {date(when, "long")}]' },
      { key: 'told', kind: 'computed', pattern: '{title}[ of {about}][ ({family})]' },
    ],
  },
  'types/box.json': {
    key: 'box',
    fields: [
      { key: 'title', kind: 'text' },
      { key: 'who', kind: 'reference', types: ['grower'] },
      { key: 'said', kind: 'richtext', form: 'plain' },
    ],
  },
  'text-forms/plain.json': { key: 'plain', marks: ['link'], blocks: ['entry'], parts: [] },
  'styles.yaml': '- {key: soft, on: words}\n- {key: lead, on: paragraph}\n',
  'listings/stories.json': {
    key: 'stories',
    type: 'story',
    address: '/stories',
    pageSize: 1,
    template: 'list-page',
    sort: ['-when', '-entry.published'],
    seo: { title: 'Stories of {site.name}[, {site.part.title}]' },
  },
  'listings/tall-only.json': {
    key: 'tall-only',
    type: 'story',
    address: '/traits/tall',
    where: { field: 'traits', op: 'is', value: 'tall' },
    sort: ['title'],
  },
  'listings/legumes.json': {
    key: 'legumes',
    type: 'story',
    where: { field: 'family', op: 'is', value: 'legumes' },
    sort: ['-said'],
    card: 'story-card',
  },
  'templates/story.json': {
    key: 'story',
    kind: 'page',
    type: 'story',
    blocks: [
      { block: 'heading', text: '{title}', level: 1 },
      { block: 'fieldSheet', fields: ['when', 'about', 'family', 'see', 'said', 'told'] },
      { block: 'items', field: 'parts' },
      {
        block: 'repeat',
        over: 'parts',
        blocks: [
          { block: 'subjects', field: 'item.marks' },
          { block: 'date', field: 'item.on' },
          { block: 'text', text: '{item.who.title}[ of {title}]' },
          { block: 'link', to: '{item.inner.see.url}', text: '{item.inner.see}' },
        ],
      },
      { block: 'contents', field: 'body', atLeast: 1 },
      { block: 'text', text: '{parts.who.title}[ / {parts.inner.see}]' },
      { block: 'subjects', field: 'traits', label: 'Traits' },
      { block: 'columns', columns: [[{ block: 'cards', field: 'about' }], []] },
      { block: 'richText', field: 'body' },
      { block: 'link', to: '{about.path}', text: 'More of {about.title}[ {site.part.path}]' },
    ],
    slots: { aside: [{ block: 'text', text: '[By {entry.author}, ]{about.title ?? title}' }] },
  },
  'templates/story-card.json': {
    key: 'story-card',
    kind: 'card',
    type: 'story',
    blocks: [
      { block: 'heading', text: '{title}', level: 3, link: true },
      { block: 'cards', field: 'about' },
      { block: 'date', field: 'when' },
      { block: 'link', to: '{see.url}', text: '{see}' },
    ],
  },
  'templates/grower.json': {
    key: 'grower',
    kind: 'page',
    type: 'grower',
    blocks: [
      { block: 'heading', text: '{title}[, with {varieties.title}]', level: 1 },
      { block: 'cards', field: 'varieties', heading: 'Keeps' },
      {
        block: 'repeat',
        over: 'varieties',
        as: 'numbered',
        blocks: [
          { block: 'picture', field: 'item.photo' },
          {
            block: 'markup',
            html: '<p title="{item.ease}"><a href="{item.path}">{item.title}</a></p>',
          },
          {
            block: 'condition',
            where: { field: 'sow', op: 'after', value: 'today' },
            of: 'item',
            blocks: [{ block: 'text', text: 'Not yet: {item.title}' }],
          },
        ],
      },
      { block: 'picks', picks: 'shelf', limit: 2 },
    ],
  },
  'templates/list-page.json': {
    key: 'list-page',
    kind: 'page',
    blocks: [
      { block: 'heading', text: 'Page {page.number} of {page.count}', level: 1 },
      { block: 'listing', listing: 'stories' },
      { block: 'pageLinks' },
      { block: 'listing', listing: 'tall', limit: 1, heading: 'Tall' },
    ],
  },
  'templates/frame.json': {
    key: 'frame',
    kind: 'frame',
    blocks: [
      { block: 'group', as: 'nav', blocks: [{ block: 'link', to: '/now', text: '{site.name}' }] },
      { block: 'slot', slot: 'main' },
      { block: 'slot', slot: 'aside' },
      { block: 'text', text: 'Of the [{site.part.title} ]site' },
      {
        block: 'condition',
        page: ['entry', 'further'],
        path: '/growers',
        blocks: [{ block: 'text', text: 'Of growers' }],
        otherwise: [
          { block: 'condition', page: ['front'], blocks: [{ block: 'text', text: 'Hello' }] },
        ],
      },
      { block: 'listing', listing: 'legumes', limit: 2 },
      { block: 'picks', picks: 'shelf', limit: 3 },
    ],
  },
  'redirects.yaml': '- {from: /old, to: /all}\n- {from: /seeds/pea, to: /now}\n',
};

/** Types of the others that a rich site has otherwise. */
export const RICH_TYPES: Record<string, object> = {
  'types/variety.json': {
    retired: { listing: 'all' },
    timing: [{ do: 'retire', from: 'starts', after: 'P20DT2H' }],
  },
  'types/grower.json': {
    template: 'grower',
    seo: { description: 'Of {title}[: {varieties}]' },
  },
  'types/part.json': { single: true },
};

/** The demo's templates as the files of its site folder. */
export const TEMPLATES: Record<string, unknown> = {
  'templates/frame.yaml': {
    key: 'frame',
    kind: 'frame',
    blocks: [
      {
        block: 'group',
        as: 'header',
        style: 'site-header',
        blocks: [
          { block: 'link', to: '/', text: '{site.name}', style: 'brand' },
          { block: 'menu', menu: 'main-menu' },
        ],
      },
      { block: 'slot', slot: 'main' },
      { block: 'slot', slot: 'aside' },
      {
        block: 'group',
        as: 'footer',
        style: 'site-footer',
        blocks: [{ block: 'text', text: '{site.name}. {site.strapline}' }],
      },
    ],
  },
  'templates/main-menu.yaml': {
    key: 'main-menu',
    label: 'Main',
    kind: 'menu',
    blocks: [
      { block: 'menuListing', listing: 'all-varieties', text: 'Varieties' },
      { block: 'menuListing', listing: 'sow-this-month', text: 'Sow now' },
      { block: 'menuListing', listing: 'coming-up', text: 'Swap days' },
      { block: 'menuListing', listing: 'growers', text: 'Growers' },
      { block: 'menuEntry', entry: 'about', text: 'About' },
    ],
  },
  'templates/front.yaml': {
    key: 'front',
    kind: 'page',
    type: 'front-page',
    blocks: [
      {
        block: 'group',
        as: 'section',
        style: 'hero',
        blocks: [
          { block: 'heading', text: '{title}', level: 1 },
          { block: 'text', text: '{lead}', style: 'lead' },
        ],
      },
      {
        block: 'listing',
        listing: 'latest-notices',
        limit: 3,
        style: 'notices',
        heading: 'Notices',
      },
      {
        block: 'picks',
        picks: 'shelf',
        limit: 4,
        card: 'packet',
        heading: 'On the shelf',
        style: 'shelf',
      },
      { block: 'listing', listing: 'sow-this-month', limit: 4, heading: 'Sow this month' },
      { block: 'listing', listing: 'coming-up', limit: 3, heading: 'Coming up', style: 'dates' },
    ],
  },
  'templates/variety-page.yaml': {
    key: 'variety-page',
    kind: 'page',
    type: 'variety',
    blocks: [
      {
        block: 'columns',
        style: 'sheet',
        columns: [
          [
            { block: 'picture', field: 'picture', width: 480, style: 'printed' },
            { block: 'months', from: 'sowFrom', until: 'sowUntil', label: 'Sow' },
          ],
          [
            { block: 'subjects', field: 'family', style: 'kicker' },
            { block: 'heading', text: '{title}', level: 1 },
            { block: 'text', text: '{latinName}', style: 'latin' },
            { block: 'text', text: '{summary}', style: 'lead' },
            {
              block: 'fieldSheet',
              fields: ['sowFrom', 'sowUntil', 'daysToHarvest', 'difficulty', 'stock', 'savedBy'],
            },
            { block: 'subjects', field: 'traits', label: 'Traits' },
          ],
        ],
      },
      { block: 'richText', field: 'story' },
      { block: 'cards', field: 'companions', card: 'packet', heading: 'Grows well beside' },
      { block: 'beside', listing: 'all-varieties' },
    ],
    slots: {
      aside: [
        {
          block: 'text',
          text: '[Seed of {title} is kept by {savedBy.name}, {savedBy.village}.]',
          style: 'aside',
        },
      ],
    },
  },
  'templates/packet.yaml': {
    key: 'packet',
    kind: 'card',
    type: 'variety',
    blocks: [
      {
        block: 'group',
        as: 'div',
        style: 'packet',
        blocks: [
          { block: 'picture', field: 'picture', width: 320 },
          { block: 'text', text: '{family.name}', style: 'kicker' },
          { block: 'heading', text: '{title}', level: 3, link: true },
          { block: 'text', text: '{limit(summary, 90)}' },
          { block: 'months', from: 'sowFrom', until: 'sowUntil', label: 'Sow' },
        ],
      },
    ],
  },
  'templates/grower-page.yaml': {
    key: 'grower-page',
    kind: 'page',
    type: 'grower',
    blocks: [
      {
        block: 'columns',
        style: 'sheet',
        columns: [
          [{ block: 'picture', field: 'portrait', width: 480, style: 'printed' }],
          [
            { block: 'heading', text: '{name}', level: 1 },
            { block: 'text', text: '{bio}', style: 'lead' },
            { block: 'fieldSheet', fields: ['village', 'since'] },
          ],
        ],
      },
      { block: 'cards', field: 'keeps', heading: 'Keeps going' },
    ],
  },
  'templates/grower-card.yaml': {
    key: 'grower-card',
    kind: 'card',
    type: 'grower',
    blocks: [
      {
        block: 'group',
        as: 'div',
        style: 'packet',
        blocks: [
          { block: 'picture', field: 'portrait', width: 320 },
          { block: 'heading', text: '{name}', level: 3, link: true },
          { block: 'text', text: '{village}, since {year(since)}' },
        ],
      },
    ],
  },
  'templates/swap-day-page.yaml': {
    key: 'swap-day-page',
    kind: 'page',
    type: 'swap-day',
    blocks: [
      { block: 'text', text: '{date(starts, "EEEE d MMMM")}', style: 'kicker' },
      { block: 'heading', text: '{title}', level: 1 },
      { block: 'text', text: '{text}', style: 'lead' },
      { block: 'fieldSheet', fields: ['starts', 'ends', 'place', 'placesLeft'] },
    ],
  },
  'templates/swap-day-card.yaml': {
    key: 'swap-day-card',
    kind: 'card',
    type: 'swap-day',
    blocks: [
      {
        block: 'group',
        as: 'div',
        style: 'ticket',
        blocks: [
          { block: 'date', field: 'starts', format: 'EEE d MMM, HH:mm' },
          { block: 'heading', text: '{title}', level: 3, link: true },
          { block: 'text', text: '{place}[ · {placesLeft} places left]' },
        ],
      },
    ],
  },
  'templates/notice-card.yaml': {
    key: 'notice-card',
    kind: 'card',
    type: 'notice',
    blocks: [
      { block: 'heading', text: '{title}', level: 3 },
      { block: 'text', text: '{text}' },
    ],
  },
  'templates/page-page.yaml': {
    key: 'page-page',
    kind: 'page',
    type: 'page',
    blocks: [
      { block: 'breadcrumbs', field: 'parent', home: 'Marrowdale' },
      { block: 'heading', text: '{title}', level: 1 },
      { block: 'richText', field: 'body' },
    ],
  },
};

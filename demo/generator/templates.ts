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
          { block: 'searchBox', listing: 'search' },
        ],
      },
      { block: 'slot', slot: 'main' },
      { block: 'group', as: 'aside', blocks: [{ block: 'slot', slot: 'aside' }] },
      {
        block: 'group',
        as: 'footer',
        style: 'site-footer',
        blocks: [
          { block: 'text', text: '{site.name}. {site.strapline}' },
          { block: 'text', text: '{site.settings.contact}' },
          { block: 'link', to: '{site.settings.letters.url}', text: 'Write to us' },
          { block: 'languageLinks' },
        ],
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
      { block: 'menuListing', listing: 'guides', text: 'Guides' },
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
        block: 'row',
        label: 'On the shelf',
        heading: 'On the shelf',
        style: 'shelf',
        blocks: [{ block: 'picks', picks: 'shelf', limit: 12, card: 'packet' }],
      },
      { block: 'listing', listing: 'sow-this-month', limit: 4, heading: 'Sow this month' },
      {
        block: 'columns',
        columns: [
          [
            {
              block: 'listing',
              listing: 'coming-up',
              limit: 3,
              heading: 'Coming up',
              style: 'dates',
            },
          ],
          [{ block: 'listing', listing: 'guides', limit: 3, heading: 'Read', style: 'dates' }],
        ],
      },
    ],
  },
  'templates/variety-page.yaml': {
    key: 'variety-page',
    kind: 'page',
    type: 'variety',
    blocks: [
      { block: 'breadcrumbs', field: 'family', home: 'Marrowdale' },
      {
        block: 'columns',
        style: 'sheet',
        columns: [
          [
            { block: 'picture', field: 'picture', width: 480, style: 'printed' },
            { block: 'months', from: 'sowFrom', until: 'sowUntil', label: 'Sow' },
          ],
          [
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
      { block: 'cards', field: 'companionOf', card: 'packet', heading: 'Named as a companion by' },
      {
        block: 'cards',
        field: 'guides',
        card: 'guide-card',
        heading: 'Read about it',
        style: 'dates',
      },
      { block: 'beside', listing: 'all-varieties' },
    ],
    slots: {
      aside: [
        {
          block: 'text',
          text: '[Seed of {title} is kept by {savedBy.name}, {savedBy.village.name}.]',
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
      { block: 'cards', field: 'saves', card: 'packet', heading: 'Saves' },
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
          { block: 'text', text: '[{village.name}, ]since {year(since)}' },
        ],
      },
    ],
  },
  'templates/guide-page.yaml': {
    key: 'guide-page',
    kind: 'page',
    type: 'guide',
    blocks: [
      { block: 'subjects', field: 'topic', style: 'kicker' },
      { block: 'heading', text: '{title}', level: 1 },
      { block: 'text', text: '{summary}', style: 'lead' },
      {
        block: 'text',
        text: '[{date(entry.published, "long")}][ · {minutes} min]',
        style: 'facts',
      },
      { block: 'contents', field: 'body', atLeast: 2 },
      { block: 'richText', field: 'body' },
      { block: 'cards', field: 'varieties', card: 'packet', heading: 'Seed for this' },
      { block: 'beside', listing: 'guides' },
    ],
  },
  'templates/guide-card.yaml': {
    key: 'guide-card',
    kind: 'card',
    type: 'guide',
    blocks: [
      {
        block: 'group',
        as: 'div',
        style: 'ticket',
        blocks: [
          { block: 'text', text: '[{topic.name}][ · {minutes} min]', style: 'kicker' },
          { block: 'heading', text: '{title}', level: 3, link: true },
          { block: 'text', text: '{limit(summary, 110)}' },
        ],
      },
    ],
  },
  'templates/tip-card.yaml': {
    key: 'tip-card',
    kind: 'card',
    type: 'tip',
    blocks: [
      {
        block: 'group',
        as: 'div',
        style: 'tip',
        blocks: [{ block: 'text', text: '{text}' }],
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

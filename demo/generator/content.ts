/** What the demo says beside its varieties. All of it is invented. */

import { since } from './variety.ts';

export const FAMILIES = [
  {
    key: 'legumes',
    name: 'Legumes',
    below: [
      { key: 'beans', name: 'Beans' },
      { key: 'peas', name: 'Peas' },
    ],
  },
  {
    key: 'roots',
    name: 'Roots',
    below: [
      { key: 'carrots', name: 'Carrots' },
      { key: 'beets', name: 'Beets' },
    ],
  },
  {
    key: 'fruits',
    name: 'Fruits',
    below: [
      { key: 'tomatoes', name: 'Tomatoes' },
      { key: 'squashes', name: 'Squashes' },
    ],
  },
  { key: 'leaves', name: 'Leaves' },
];

export const TRAITS = [
  { key: 'climbing', name: 'Climbing' },
  { key: 'dwarf', name: 'Dwarf' },
  { key: 'hardy', name: 'Hardy' },
  { key: 'keeps-well', name: 'Keeps well' },
  { key: 'for-pots', name: 'For pots' },
  { key: 'good-for-drying', name: 'Good for drying' },
];

export const GROWERS = [
  {
    id: 'edda',
    name: 'Edda Marsh',
    village: 'Marrowdale',
    since: '2011-03-01',
    bio: 'Keeps the climbing beans and the key to the seed room.',
    live: since(320),
  },
  {
    id: 'tom',
    name: 'Tom Quill',
    village: 'Nether Dale',
    since: '2015-09-12',
    bio: 'Grows what fits in pots on a balcony above the bakery.',
    live: since(318),
  },
  {
    id: 'ines',
    name: 'Inés Calder',
    village: 'Saltfleet Hythe',
    since: '2009-01-20',
    bio: 'Pea people go to Inés. So do people with questions about salt wind.',
    live: since(316),
  },
  {
    id: 'bram',
    name: 'Bram Okoro',
    village: 'Marrowdale',
    since: '2018-05-03',
    bio: 'Roots, mostly, and a wheelbarrow that everybody borrows.',
    live: since(314),
  },
  {
    id: 'salka',
    name: 'Salka Dunn',
    village: 'Upper Dale',
    since: '2020-11-11',
    bio: 'Beets, tomatoes and a long table for sorting evenings.',
    live: since(312),
  },
  {
    id: 'wilf',
    name: 'Wilf Tanner',
    village: 'Nether Dale',
    since: '2026-02-02',
    bio: 'Joins the library soon.',
    live: ['today + P5D at 09:00/'],
  },
];

export const SWAP_DAYS = [
  {
    id: 'autumn-swap',
    title: 'Autumn sorting evening',
    starts: 'today - P20D at 18:00',
    ends: 'today - P20D at 21:00',
    place: 'Long Barn',
    text: 'Podding, threshing and soup.',
    places: 0,
    live: 'today - P60D at 09:00/',
  },
  {
    id: 'frost-swap',
    title: 'First frost swap',
    starts: 'today + P2D at 10:00',
    ends: 'today + P2D at 13:00',
    place: 'Marrowdale Hall',
    text: 'Bring labelled seed, take what you will sow.',
    places: 14,
    live: 'today - P15D at 09:00/',
  },
  {
    id: 'label-evening',
    title: 'Label-writing evening',
    starts: 'today + P9D at 19:00',
    ends: 'today + P9D at 21:00',
    place: 'The Reading Room',
    text: 'Good pens provided.',
    places: 6,
    live: 'today - P2D at 09:00/',
  },
  {
    id: 'midwinter-swap',
    title: 'Midwinter swap',
    starts: 'today + P28D at 11:00',
    ends: 'today + P28D at 15:00',
    place: 'Marrowdale Hall',
    text: 'The big one. Doors open when the kettle has boiled.',
    places: 40,
    live: 'now + PT5M/',
  },
  {
    id: 'onion-talk',
    title: 'Onions: a talk',
    starts: 'today + P45D at 19:30',
    ends: 'today + P45D at 21:00',
    place: 'Chapel rooms',
    text: 'Everything that can go wrong, and how to store the rest.',
    places: 25,
    live: 'today + P7D at 08:00/',
  },
];

export const NOTICES = [
  {
    id: 'shelf-full',
    title: 'The bean shelf is full',
    text: 'Please hold back beans until the midwinter swap.',
    urgency: 2,
    live: ['today - P3D at 08:00/'],
  },
  {
    id: 'frost-warning',
    title: 'Ground frost expected',
    text: 'Fleece is in the hall. Take what you need and bring it back dry.',
    urgency: 3,
    live: ['today - P1D at 16:00/today + P3D at 10:00'],
  },
  {
    id: 'hours',
    title: 'Winter hours',
    text: 'The seed room is open on Saturdays from ten until two.',
    urgency: 1,
    live: ['today - P10D at 08:00/'],
  },
  {
    id: 'germination',
    title: 'Germination results are in',
    text: 'Nine in ten. Thank you to everyone with a windowsill.',
    urgency: 2,
    live: ['now + PT10M/'],
  },
];

export const PAGES = [
  {
    id: 'about',
    title: 'About the library',
    body: 'Marrowdale Seed Library lends seed as other libraries lend books: take a packet, grow it, and bring some back.\n\nNobody owns the varieties. Forty households keep them going.',
    within: null,
    live: since(330),
  },
  {
    id: 'how-it-works',
    title: 'How lending works',
    body: '## Taking\n\nUp to six packets a season. Write the date on the slip.\n\n## Returning\n\nTwice what you took, dry and labelled. If the summer was bad, a note will do.',
    within: 'about',
    live: since(330),
  },
  {
    id: 'saving-seed',
    title: 'Saving seed',
    body: 'Choose the **best** plants, not the leftovers. Dry the seed somewhere airy, then put it in paper.\n\n- Beans and peas: when pods rattle.\n- Roots: in the second year.\n- Tomatoes: ferment for three days, rinse, dry.',
    within: 'how-it-works',
    live: since(280),
  },
  {
    id: 'contact',
    title: 'Visit us',
    body: 'The seed room is behind Marrowdale Hall. Knock loudly.',
    within: 'about',
    live: since(330),
  },
  {
    id: 'volunteer',
    title: 'Volunteer rota',
    body: 'To be agreed at the midwinter swap.',
    within: 'about',
    live: [] as string[],
  },
];

/** What is chosen by hand, in its order. */
export const PICKS = [
  {
    key: 'shelf',
    label: 'On the shelf',
    description: 'The row of packets on the front page.',
    members: [
      'purple-podded-wren',
      { entry: 'frost-lettuce', to: 'today + P5D at 08:00' },
      'ballast-carrot',
      { entry: 'ember-beet', from: 'today - P20D at 08:00' },
      { entry: 'lantern-pea', from: 'today + P5D at 08:00', to: 'today + P40D at 08:00' },
    ],
  },
  {
    key: 'staff-picks',
    label: 'Staff picks',
    description: 'What the people at the desk would sow first.',
    members: ['chapel-runner', 'old-harbour-squash', 'candle-beet'],
  },
];

/**
 * What random sites list: by numbers, by dates that move, by a member, for each value, of several
 * types, of picks.
 */
export const LISTINGS = {
  'listings/all.json': {
    key: 'all',
    type: 'variety',
    address: '/all',
    pageSize: 2,
    sort: ['-stock', 'title'],
    feed: { size: 2 },
  },
  'listings/now.json': {
    key: 'now',
    type: 'variety',
    address: '/now',
    pageSize: 3,
    where: {
      any: [
        { field: 'sow', op: 'on-or-before', value: 'today + 10' },
        { field: 'starts', op: 'after', value: 'now - PT36H' },
        { field: 'grower', op: 'not-blank' },
      ],
    },
    sort: ['sow', '-entry.published'],
  },
  'listings/tall.json': {
    key: 'tall',
    type: 'variety',
    address: '/tall',
    pageSize: 2,
    where: {
      all: [
        { field: 'traits', op: 'is', value: 'tall' },
        { field: 'stock', op: 'not-blank' },
      ],
    },
    sort: ['title'],
  },
  'listings/families.json': {
    key: 'families',
    type: 'variety',
    address: '/families',
    pageSize: 1,
    sort: ['title'],
    each: { by: 'family' },
    feed: {},
  },
  'listings/growers.json': {
    key: 'growers',
    type: 'variety',
    address: '/by',
    pageSize: 2,
    sort: ['-title'],
    each: { by: 'grower', index: 'entries' },
  },
  'listings/writers.json': {
    key: 'writers',
    type: 'variety',
    also: ['page'],
    address: '/writers',
    pageSize: 1,
    sort: ['entry.name'],
    each: { by: 'entry.author' },
  },
  'listings/days.json': {
    key: 'days',
    type: 'variety',
    address: '/days',
    sort: ['-starts'],
    where: { field: 'shade', op: 'is-not', value: true },
    each: { by: 'starts', per: 'month', intro: 'In {value}' },
  },
  'listings/shown.json': {
    key: 'shown',
    type: 'variety',
    address: '/shown',
    pageSize: 2,
    sort: ['-entry.shownDate', 'title'],
    where: { field: 'traits', op: 'is', value: 'tall' },
    each: { by: 'entry.shownDate', per: 'year' },
    feed: {},
  },
  'listings/mixed.json': {
    key: 'mixed',
    type: 'variety',
    also: ['page', 'event'],
    address: '/mixed',
    pageSize: 2,
    where: { field: 'shade', op: 'is-not', value: true },
    sort: ['entry.name', '-stock'],
    visitor: {
      filters: ['family', 'traits', 'grower'],
      search: ['title'],
      orders: [{ key: 'most', sort: ['-stock'] }],
    },
  },
  'listings/shelved.json': {
    key: 'shelved',
    type: 'grower',
    also: ['page'],
    address: '/shelved',
    pageSize: 1,
    where: { field: 'entry.picks', op: 'is', value: 'shelf' },
    sort: ['entry.place'],
  },
  'listings/led.json': {
    key: 'led',
    type: 'variety',
    address: '/led',
    pageSize: 2,
    where: {
      any: [
        { field: 'grower.title', op: 'is', value: 'Ana' },
        { field: 'grower.entry.published', op: 'after', value: 'now - P60D' },
        { all: [{ field: 'grower.title', op: 'is-not', value: 'Bo' }] },
      ],
    },
    sort: ['-stock'],
  },
  'listings/beside.json': {
    key: 'beside',
    type: 'variety',
    where: {
      all: [
        { field: 'grower', op: 'is', value: { page: 'grower' } },
        { field: 'entry', op: 'is-not', value: { page: 'entry' } },
      ],
    },
    sort: ['title'],
  },
};

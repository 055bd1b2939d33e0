/** Everything the demo says. All of it is invented. */

export const FAMILIES = [
  { key: 'legumes', name: 'Legumes', below: [{ key: 'beans', name: 'Beans' }, { key: 'peas', name: 'Peas' }] },
  { key: 'roots', name: 'Roots', below: [{ key: 'carrots', name: 'Carrots' }, { key: 'beets', name: 'Beets' }] },
  { key: 'fruits', name: 'Fruits', below: [{ key: 'tomatoes', name: 'Tomatoes' }, { key: 'squashes', name: 'Squashes' }] },
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

export interface Variety {
  id: string;
  title: string;
  latin: string;
  summary: string;
  story: string;
  family: string;
  traits: string[];
  /** Sowing window in days from the day of loading. */
  sow: [number, number];
  days: number;
  ease: 'easy' | 'some-care' | 'demanding';
  stock: number;
  grower: string;
  companions: string[];
  live: string[];
  older?: { saved: string; title?: string; summary?: string };
  saved?: string;
  plans?: { at: string; do: 'publish' | 'retire' }[];
}

const since = (days: number): string[] => [`today - P${days}D at 08:00/`];

export const VARIETIES: Variety[] = [
  { id: 'purple-podded-wren', title: 'Purple-podded Wren', latin: 'Phaseolus vulgaris', summary: 'A climbing bean with pods the colour of wet slate that turn green in the pot.', story: 'Wren was found in a biscuit tin behind the mill and grown out by three households in one summer. It climbs to the eaves, asks for little, and crops until the first frost.\n\n## Growing\n\nSow two seeds to a station, 20 cm apart, once the nights stay above 8 °C.\n\n| Step | When |\n| --- | --- |\n| Sow | late spring |\n| Pick | from week 9 |\n| Save seed | when pods rattle |', family: 'beans', traits: ['climbing', 'good-for-drying'], sow: [-12, 38], days: 65, ease: 'easy', stock: 42, grower: 'edda', companions: ['ballast-carrot', 'old-harbour-squash'], live: since(210) },
  { id: 'miller-s-dwarf', title: "Miller's Dwarf", latin: 'Phaseolus vulgaris', summary: 'A knee-high bush bean for windy gardens and large pots.', story: 'Bred by nobody in particular: the mill yard was too windy for poles, so each year the shortest plants were kept.\n\nIt needs **no support** and sets its pods within a fortnight of each other.', family: 'beans', traits: ['dwarf', 'for-pots'], sow: [-5, 60], days: 55, ease: 'easy', stock: 18, grower: 'tom', companions: ['purple-podded-wren'], live: since(180) },
  { id: 'chapel-runner', title: 'Chapel Runner', latin: 'Phaseolus coccineus', summary: 'Scarlet flowers, long pods, and seeds like painted stones.', story: 'The chapel fence has carried this runner for as long as anyone remembers. Bumblebees open every flower before breakfast.', family: 'beans', traits: ['climbing'], sow: [20, 75], days: 80, ease: 'some-care', stock: 9, grower: 'edda', companions: [], live: since(150) },
  { id: 'tidewater-pea', title: 'Tidewater Pea', latin: 'Pisum sativum', summary: 'A hardy pea for sowing in the cold half of the year.', story: 'Tidewater shrugs off salt wind and wet feet. Sown in late autumn it stands through the winter and flowers weeks before the others.\n\n> Sow it and forget it, then remember it in May.', family: 'peas', traits: ['hardy', 'climbing'], sow: [-20, 25], days: 120, ease: 'easy', stock: 64, grower: 'ines', companions: ['ballast-carrot'], live: since(300) },
  { id: 'lantern-pea', title: 'Lantern Pea', latin: 'Pisum sativum', summary: 'Yellow pods that show themselves to the picker.', story: 'Green pods hide among green leaves. Lantern’s are yellow, so children find them all.', family: 'peas', traits: ['for-pots'], sow: [60, 120], days: 70, ease: 'easy', stock: 25, grower: 'ines', companions: [], live: since(90) },
  { id: 'short-tom-pea', title: 'Short Tom', latin: 'Pisum sativum', summary: 'Forty centimetres tall and covered in pods.', story: 'Short Tom needs a few twigs and nothing more.', family: 'peas', traits: ['dwarf', 'for-pots', 'hardy'], sow: [-3, 30], days: 62, ease: 'easy', stock: 0, grower: 'tom', companions: ['tidewater-pea'], live: since(75) },
  { id: 'ballast-carrot', title: 'Ballast Carrot', latin: 'Daucus carota', summary: 'Stump-rooted, sweet after frost, and not troubled by stones.', story: 'The soil down by the quay is half ship’s ballast. This carrot stopped minding.\n\n1. Sow thinly.\n2. Cover with fleece.\n3. Lift after the first frost, when it is sweetest.', family: 'carrots', traits: ['hardy', 'keeps-well'], sow: [-30, 15], days: 95, ease: 'some-care', stock: 31, grower: 'bram', companions: ['tidewater-pea'], live: since(240), older: { saved: 'today - P240D', title: 'Quay Carrot', summary: 'A short carrot for stony ground.' }, saved: 'today - P40D', plans: [{ at: 'today - P30D at 09:00', do: 'publish' }] },
  { id: 'long-evening', title: 'Long Evening', latin: 'Daucus carota', summary: 'A slender late carrot for deep, light soil.', story: 'Give it a raised bed and patience.', family: 'carrots', traits: ['keeps-well'], sow: [45, 110], days: 130, ease: 'demanding', stock: 12, grower: 'bram', companions: [], live: since(120) },
  { id: 'ember-beet', title: 'Ember Beet', latin: 'Beta vulgaris', summary: 'Deep red to the heart, with leaves worth eating.', story: 'Ember colours everything it touches, the cook included.', family: 'beets', traits: ['keeps-well'], sow: [-8, 50], days: 85, ease: 'easy', stock: 37, grower: 'salka', companions: ['miller-s-dwarf'], live: since(200) },
  { id: 'candle-beet', title: 'Candle Beet', latin: 'Beta vulgaris', summary: 'A white beet that stains nothing, mild and sweet.', story: 'For those who have met Ember and own a pale tablecloth.', family: 'beets', traits: [], sow: [10, 70], days: 90, ease: 'easy', stock: 5, grower: 'salka', companions: ['ember-beet'], live: since(60) },
  { id: 'old-harbour-squash', title: 'Old Harbour Squash', latin: 'Cucurbita maxima', summary: 'A grey-blue keeper that lasts until spring on a cool shelf.', story: 'One plant fills a compost heap and feeds a street. Cure the fruits for ten days in the sun before they go on the shelf.', family: 'squashes', traits: ['keeps-well'], sow: [70, 120], days: 110, ease: 'some-care', stock: 14, grower: 'edda', companions: ['purple-podded-wren'], live: since(160) },
  { id: 'doorstep-squash', title: 'Doorstep Squash', latin: 'Cucurbita pepo', summary: 'A bush squash for the pot beside the door.', story: 'Small fruits, many of them, within reach of the kitchen.', family: 'squashes', traits: ['dwarf', 'for-pots'], sow: [65, 130], days: 60, ease: 'easy', stock: 20, grower: 'tom', companions: [], live: since(45) },
  { id: 'copper-kettle', title: 'Copper Kettle', latin: 'Solanum lycopersicum', summary: 'A bronze tomato that ripens even in a grey summer.', story: 'Copper Kettle was chosen in four wet summers running. What ripened then ripens anywhere.', family: 'tomatoes', traits: ['for-pots'], sow: [40, 85], days: 100, ease: 'some-care', stock: 27, grower: 'ines', companions: ['candle-beet'], live: since(220) },
  { id: 'greenhouse-keys', title: 'Greenhouse Keys', latin: 'Solanum lycopersicum', summary: 'Long trusses of small red fruit that hang like keys.', story: 'Needs glass, a string, and a finger to pinch out its side shoots.', family: 'tomatoes', traits: ['climbing'], sow: [35, 80], days: 115, ease: 'demanding', stock: 8, grower: 'salka', companions: ['copper-kettle'], live: since(35) },
  { id: 'frost-lettuce', title: 'Frost Lettuce', latin: 'Lactuca sativa', summary: 'Small tight heads that stand under snow.', story: 'Sow it under cloches now and cut it when nothing else is green.', family: 'leaves', traits: ['hardy', 'for-pots'], sow: [-15, 20], days: 75, ease: 'easy', stock: 55, grower: 'ines', companions: ['ember-beet'], live: since(110) },
  { id: 'butter-leaf', title: 'Butter Leaf', latin: 'Lactuca sativa', summary: 'Soft leaves, quick to cut, quick to come again.', story: 'A row every fortnight keeps a household in salad.', family: 'leaves', traits: ['for-pots'], sow: [25, 140], days: 45, ease: 'easy', stock: 33, grower: 'bram', companions: [], live: since(25) },
  { id: 'winter-tide-kale', title: 'Winter Tide Kale', latin: 'Brassica oleracea', summary: 'Blue-green leaves that sweeten with every frost.', story: 'Picked from the bottom up it lasts from autumn until the hungry gap.', family: 'leaves', traits: ['hardy'], sow: [-40, -5], days: 90, ease: 'easy', stock: 16, grower: 'edda', companions: ['frost-lettuce'], live: since(15) },
  { id: 'night-market-bean', title: 'Night Market Bean', latin: 'Phaseolus vulgaris', summary: 'Black seeds, white eye, wonderful in soup.', story: 'New in the library this season: forty packets from one good summer.', family: 'beans', traits: ['good-for-drying', 'climbing'], sow: [-2, 45], days: 88, ease: 'easy', stock: 40, grower: 'salka', companions: ['purple-podded-wren'], live: ['now + PT3M/'] },
  { id: 'skylark-pea', title: 'Skylark Pea', latin: 'Pisum sativum', summary: 'Two-coloured flowers and the first pods of the year.', story: 'Released each year when the first skylark is heard over the marsh, or on the agreed date if nobody is listening.', family: 'peas', traits: ['climbing', 'hardy'], sow: [0, 60], days: 68, ease: 'easy', stock: 22, grower: 'ines', companions: [], live: ['today + P1D at 08:00/'] },
  { id: 'lighthouse-carrot', title: 'Lighthouse Carrot', latin: 'Daucus carota', summary: 'White above, orange below.', story: 'A curiosity that turned out to taste of something.', family: 'carrots', traits: [], sow: [80, 140], days: 100, ease: 'some-care', stock: 10, grower: 'bram', companions: [], live: ['today + P12D at 08:00/'] },
  { id: 'last-orders', title: 'Last Orders', latin: 'Solanum lycopersicum', summary: 'The last tomato to be sown and the last to be picked.', story: 'On the shelf for a few weeks only.', family: 'tomatoes', traits: [], sow: [-10, 3], days: 70, ease: 'easy', stock: 3, grower: 'tom', companions: [], live: ['today - P30D at 08:00/now + PT8M'] },
  { id: 'grandmother-s-salad', title: "Grandmother's Salad", latin: 'Lactuca sativa', summary: 'Retired until somebody grows fresh seed.', story: 'Germination fell below half, so it rests.', family: 'leaves', traits: [], sow: [0, 30], days: 50, ease: 'easy', stock: 0, grower: 'salka', companions: [], live: ['today - P260D at 08:00/today - P50D at 08:00'] },
  { id: 'unnamed-squash', title: 'Unnamed Squash', latin: 'Cucurbita moschata', summary: '', story: 'Came without a label. Waiting for a name and a second summer.', family: 'squashes', traits: [], sow: [70, 110], days: 120, ease: 'some-care', stock: 2, grower: 'bram', companions: ['old-harbour-squash'], live: [] },
];

export const GROWERS = [
  { id: 'edda', name: 'Edda Marsh', village: 'Marrowdale', since: '2011-03-01', bio: 'Keeps the climbing beans and the key to the seed room.', live: since(320) },
  { id: 'tom', name: 'Tom Quill', village: 'Nether Dale', since: '2015-09-12', bio: 'Grows what fits in pots on a balcony above the bakery.', live: since(318) },
  { id: 'ines', name: 'Inés Calder', village: 'Saltfleet Hythe', since: '2009-01-20', bio: 'Pea people go to Inés. So do people with questions about salt wind.', live: since(316) },
  { id: 'bram', name: 'Bram Okoro', village: 'Marrowdale', since: '2018-05-03', bio: 'Roots, mostly, and a wheelbarrow that everybody borrows.', live: since(314) },
  { id: 'salka', name: 'Salka Dunn', village: 'Upper Dale', since: '2020-11-11', bio: 'Beets, tomatoes and a long table for sorting evenings.', live: since(312) },
  { id: 'wilf', name: 'Wilf Tanner', village: 'Nether Dale', since: '2026-02-02', bio: 'Joins the library soon.', live: ['today + P5D at 09:00/'] },
];

export const SWAP_DAYS = [
  { id: 'autumn-swap', title: 'Autumn sorting evening', starts: 'today - P20D at 18:00', ends: 'today - P20D at 21:00', place: 'Long Barn', text: 'Podding, threshing and soup.', places: 0, live: 'today - P60D at 09:00/today - P20D at 23:00' },
  { id: 'frost-swap', title: 'First frost swap', starts: 'today + P2D at 10:00', ends: 'today + P2D at 13:00', place: 'Marrowdale Hall', text: 'Bring labelled seed, take what you will sow.', places: 14, live: 'today - P15D at 09:00/today + P2D at 15:00' },
  { id: 'label-evening', title: 'Label-writing evening', starts: 'today + P9D at 19:00', ends: 'today + P9D at 21:00', place: 'The Reading Room', text: 'Good pens provided.', places: 6, live: 'today - P2D at 09:00/today + P9D at 23:00' },
  { id: 'midwinter-swap', title: 'Midwinter swap', starts: 'today + P28D at 11:00', ends: 'today + P28D at 15:00', place: 'Marrowdale Hall', text: 'The big one. Doors open when the kettle has boiled.', places: 40, live: 'now + PT5M/today + P28D at 17:00' },
  { id: 'onion-talk', title: 'Onions: a talk', starts: 'today + P45D at 19:30', ends: 'today + P45D at 21:00', place: 'Chapel rooms', text: 'Everything that can go wrong, and how to store the rest.', places: 25, live: 'today + P7D at 08:00/today + P45D at 23:00' },
];

export const NOTICES = [
  { id: 'shelf-full', title: 'The bean shelf is full', text: 'Please hold back beans until the midwinter swap.', urgency: 2, live: ['today - P3D at 08:00/today + P11D at 08:00'] },
  { id: 'frost-warning', title: 'Ground frost expected', text: 'Fleece is in the hall. Take what you need and bring it back dry.', urgency: 3, live: ['today - P1D at 16:00/today + P3D at 10:00'] },
  { id: 'hours', title: 'Winter hours', text: 'The seed room is open on Saturdays from ten until two.', urgency: 1, live: ['today - P25D at 08:00/today + P60D at 08:00'] },
  { id: 'germination', title: 'Germination results are in', text: 'Nine in ten. Thank you to everyone with a windowsill.', urgency: 2, live: ['now + PT10M/today + P14D at 08:00'] },
];

export const PAGES = [
  { id: 'about', title: 'About the library', body: 'Marrowdale Seed Library lends seed as other libraries lend books: take a packet, grow it, and bring some back.\n\nNobody owns the varieties. Forty households keep them going.', within: null, live: since(330) },
  { id: 'how-it-works', title: 'How lending works', body: '## Taking\n\nUp to six packets a season. Write the date on the slip.\n\n## Returning\n\nTwice what you took, dry and labelled. If the summer was bad, a note will do.', within: 'about', live: since(330) },
  { id: 'saving-seed', title: 'Saving seed', body: 'Choose the **best** plants, not the leftovers. Dry the seed somewhere airy, then put it in paper.\n\n- Beans and peas: when pods rattle.\n- Roots: in the second year.\n- Tomatoes: ferment for three days, rinse, dry.', within: 'how-it-works', live: since(280) },
  { id: 'contact', title: 'Visit us', body: 'The seed room is behind Marrowdale Hall. Knock loudly.', within: 'about', live: since(330) },
  { id: 'volunteer', title: 'Volunteer rota', body: 'To be agreed at the midwinter swap.', within: 'about', live: [] as string[] },
];

import type { BlockKind } from '../definition.ts';
import { beside } from './beside.ts';
import { breadcrumbs } from './breadcrumbs.ts';
import { byline } from './byline.ts';
import { cards } from './cards.ts';
import { columns } from './columns.ts';
import { condition } from './condition.ts';
import { contents } from './contents.ts';
import { date } from './date.ts';
import { fieldSheet } from './fieldSheet.ts';
import { grid } from './grid.ts';
import { group } from './group.ts';
import { heading } from './heading.ts';
import { items } from './items.ts';
import { languageLinks } from './languageLinks.ts';
import { link } from './link.ts';
import { listing } from './listing.ts';
import { markup } from './markup.ts';
import { menu } from './menu.ts';
import { menuEntry } from './menuEntry.ts';
import { menuHeading } from './menuHeading.ts';
import { menuLink } from './menuLink.ts';
import { menuListing } from './menuListing.ts';
import { menuPicks } from './menuPicks.ts';
import { months } from './months.ts';
import { number } from './number.ts';
import { pageLinks } from './pageLinks.ts';
import { picks } from './picks.ts';
import { picture } from './picture.ts';
import { repeat } from './repeat.ts';
import { richText } from './richText.ts';
import { row } from './row.ts';
import { searchBox } from './searchBox.ts';
import { slot } from './slot.ts';
import { subjects } from './subjects.ts';
import { text } from './text.ts';
import { values } from './values.ts';
import { visitorControls } from './visitorControls.ts';

/** Every kind of block, in the order screens offer them. */
export const BLOCKS: readonly BlockKind[] = [
  heading,
  text,
  richText,
  contents,
  picture,
  date,
  number,
  byline,
  breadcrumbs,
  link,
  subjects,
  fieldSheet,
  items,
  columns,
  grid,
  group,
  row,
  condition,
  repeat,
  listing,
  cards,
  picks,
  values,
  pageLinks,
  visitorControls,
  searchBox,
  menu,
  languageLinks,
  beside,
  months,
  markup,
  slot,
  menuEntry,
  menuListing,
  menuLink,
  menuHeading,
  menuPicks,
];

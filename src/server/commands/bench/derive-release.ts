import type { Refusal } from '@/core/address/model.ts';
import type { AddressRules } from '@/core/address/rules.ts';
import { typesToPlayAnew } from '@/core/site/played-anew.ts';
import { notToBeDealt } from '@/core/address/taken.ts';
import type { Issue } from '@/core/issue.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../../db/connection.ts';
import { asOf } from '../../store/as-of.ts';
import { derive } from '../../store/derive.ts';
import { statement } from '../../store/statement.ts';
import { TooManyForOneWrite } from '../../store/too-many.ts';
import { raisePublic } from '../../store/write.ts';
import { type CommandContext, Refused } from '../definition.ts';
import { takenOffline } from '../derive-entry.ts';
import { crowdedTops, doublesInUse, singlesInUse, typesInUse } from './types-in-use.ts';

const SHOWN = 10;

/** One design taking the place of another, stored already. */
export interface Change {
  before: CompiledSite;
  after: CompiledSite;
  starts: Instant;
  /** Entries published, or taken back, with it. */
  published: string[];
}

/**
 * Derives what follows from a release, from its instant on. Refused where a page would be hidden,
 * would have no address, or where entries would be left without a type.
 * @throws Refused, TooManyForOneWrite
 */
export function deriveRelease(context: CommandContext, change: Change): void {
  const { connection, site, at, step, most } = context;
  const { before, after, starts, published } = change;
  const wrong = [
    ...pagesHidden(connection, before.addresses, after.addresses, starts),
    ...typesInUse(connection, before, after),
    ...singlesInUse(connection, before, after),
    ...doublesInUse(connection, before, after),
    ...crowdedTops(connection, before, after),
  ];
  if (wrong.length > 0) throw new Refused(...wrong);
  const moving = entriesOf(connection, typesToPlayAnew(before, after));
  if (most !== null && moving.length > most) throw new TooManyForOneWrite(moving.length);
  const isNow = starts === at;
  const { refusals, refusedBefore, changed } = derive(connection, {
    site: isNow ? after : site,
    settled: at,
    touched: isNow ? [...moving, ...published] : published,
    ...(isNow ? {} : { touchedLater: { at: starts, entries: moving } }),
    step,
    most,
  });
  const stuck = refusals.filter(
    (r) =>
      (r.at === starts && r.code !== 'nothing-left') ||
      (r.cancelled && !refusedBefore.has(`${r.entry}\n${r.at}`) && takenOffline(connection, r)),
  );
  if (stuck.length > 0) throw new Refused(...told(stuck));
  raisePublic(connection, changed);
}

/** Live pages that stand where a listing is to stand from the release on. */
function pagesHidden(
  connection: Connection,
  before: AddressRules,
  after: AddressRules,
  at: Instant,
): Issue[] {
  const held = statement<{ path: string; entry: string }>(
    connection,
    `SELECT path, entry FROM address
       WHERE role = 'current' AND ${asOf('')} AND path BETWEEN ? AND ?`,
  );
  const added = [...after.listingAddresses].filter(
    (address) => address !== '/' && !before.listingAddresses.has(address),
  );
  return added.flatMap((address) => {
    const rows = [
      ...held.all(at, at, address, address),
      ...held.all(at, at, `${address}/page-`, `${address}/page-a`),
    ];
    return rows
      .filter(({ path }) => notToBeDealt(after, path) !== null)
      .map(({ path, entry }) => ({
        code: 'taken-address',
        path: `listings/${listingAt(after, address)}/address`,
        message: `${path} is the address of the page of "${entry}", which would be hidden.`,
        fix: 'Choose another address for the listing, or move or retire that page first.',
      }));
  });
}

function listingAt({ design }: AddressRules, address: string): string {
  return design.listings.find((l) => l.address === address)!.key;
}

/** Ids of the entries of some types. */
function entriesOf(connection: Connection, types: ReadonlySet<string>): string[] {
  const ids = statement<string>(
    connection,
    'SELECT id FROM entry WHERE type = ? ORDER BY id',
  ).pluck();
  return [...types].flatMap((type) => ids.all(type));
}

/** The first few entries that could not have an address, and how many there are. */
function told(refusals: Refusal[]): Issue[] {
  const issues = refusals
    .slice(0, SHOWN)
    .map(({ entry, code, message, fix }) => ({ code, message: `${entry}: ${message}`, fix }));
  if (refusals.length <= SHOWN) return issues;
  const more = refusals.length - SHOWN;
  const rest = {
    code: 'more',
    message: `… and ${more} more ${more === 1 ? 'entry' : 'entries'}.`,
    fix: 'Nothing was released.',
  };
  return [...issues, rest];
}

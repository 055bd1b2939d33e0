import { z } from 'zod';
import type { Refusal } from '@/core/address/model.ts';
import { type AddressRules, typesToDealAnew } from '@/core/address/rules.ts';
import { notToBeDealt } from '@/core/address/taken.ts';
import { versionOf } from '@/core/design-edit/changes.ts';
import { EDITED_PARTS, applyEdit, inverseOf } from '@/core/design-edit/edit.ts';
import type { Issue } from '@/core/issue.ts';
import { compileSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { asOf } from '../store/as-of.ts';
import { releaseDesign } from '../store/design-store.ts';
import { derive } from '../store/derive.ts';
import { movedAt } from '../store/moved.ts';
import { statement } from '../store/statement.ts';
import { raisePublic } from '../store/write.ts';
import { Refused, TriedOnly, command } from './definition.ts';

const SHOWN = 10;

/** Releases an edited part of the design at once; addresses move, and former ones lead on. */
export const releaseEdit = command({
  deed: 'change-design',
  input: z.strictObject({
    part: z.enum(EDITED_PARTS),
    key: z.string().max(64),
    set: z.record(z.string().max(64), z.unknown()),
    version: z.string().max(64),
    /** Only says what would come of it. */
    dry: z.boolean().default(false),
  }),
  run({ connection, site: before, actor, at, step }, { dry, ...edit }) {
    const edited = applyEdit(before.design, edit);
    if (!edited.ok) throw new Refused(...edited.issues);
    const { site } = compileSite(edited.value);
    const hidden = pagesHidden(connection, before.addresses, site.addresses, at);
    if (hidden.length > 0) throw new Refused(...hidden);
    releaseDesign(connection, edited.value, at, actor.name, at);
    const touched = entriesOf(connection, typesToDealAnew(before.addresses, site.addresses));
    const { refusals } = derive(connection, { site, settled: at, touched, step });
    const stuck = refusals.filter((r) => r.at === at && r.code !== 'nothing-left');
    if (stuck.length > 0) throw new Refused(...told(stuck));
    const part = edited.value[edit.part].find((p) => p.key === edit.key)!;
    const result = {
      at,
      ...movedAt(connection, at),
      undo: { part: edit.part, key: edit.key, set: inverseOf(before.design, edit) },
      version: versionOf(part),
    };
    if (dry) throw new TriedOnly(result);
    raisePublic(connection, ['design', ...edited.value.types.map((t) => `type:${t.key}`)]);
    return result;
  },
});

/** Live pages that stand where a listing is to stand from now on. */
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

import type { Refusal } from '@/core/address/model.ts';
import type { Issue } from '@/core/issue.ts';
import { type Derived, derive } from '../store/derive.ts';
import { raisePublic } from '../store/write.ts';
import { statement } from '../store/statement.ts';
import { type CommandContext, Refused } from './definition.ts';

/**
 * Derives what follows from a change of one entry. Refused where a publication of its own could
 * not have its address, and where it would take somebody else's live page off the site. `isByHand`:
 * where an address set by hand could not be had, too.
 */
export function deriveEntry(
  context: CommandContext,
  entry: string,
  { isByHand = false }: { isByHand?: boolean } = {},
): void {
  const derived = derivedFrom(context, [entry]);
  const isNew = ({ at }: Refusal): boolean => !derived.refusedBefore.has(`${entry}\n${at}`);
  const own = [...derived.refusals, ...derived.furtherRefusals].filter(
    (r) => r.entry === entry && (r.cancelled || (isByHand && r.byHand && isNew(r))),
  );
  if (own.length > 0)
    throw new Refused(...own.map(({ code, message, fix }) => ({ code, message, fix })));
  keepOnline(context, derived);
}

/** The same for a change that concerns several: refused where it would take one off the site. */
export function deriveEntries(context: CommandContext, entries: Iterable<string>): void {
  keepOnline(context, derivedFrom(context, entries));
}

/**
 * The same for many that something was done to; gives those of them that could not have their
 * addresses, with the reasons, and then nothing may be kept.
 */
export function deriveMany(
  context: CommandContext,
  entries: ReadonlyMap<string, unknown>,
): Map<string, Issue[]> {
  const derived = derivedFrom(context, [...entries.keys()]);
  const own = derived.refusals.filter(
    (r) => r.cancelled && entries.has(r.entry) && !derived.refusedBefore.has(`${r.entry}\n${r.at}`),
  );
  if (own.length === 0) keepOnline(context, derived);
  return new Map(own.map(({ entry, code, message, fix }) => [entry, [{ code, message, fix }]]));
}

function derivedFrom(
  { connection, site, at, step }: CommandContext,
  touched: Iterable<string>,
): Derived {
  return derive(connection, { site, settled: at, touched, step });
}

function keepOnline(
  { connection }: CommandContext,
  { refusals, changed, refusedBefore }: Derived,
): void {
  const offline = refusals.filter(
    (r) => r.cancelled && !refusedBefore.has(`${r.entry}\n${r.at}`) && takenOffline(connection, r),
  );
  if (offline.length > 0)
    throw new Refused(
      ...offline.slice(0, 5).map((r) => ({
        code: 'takes-offline',
        message: `This would take the page of "${r.entry}" off the site. ${r.message}`,
        fix: 'Choose another instant, or change the address of one of them.',
      })),
    );
  raisePublic(connection, changed);
}

/** Whether an entry was live until it was refused, and is not from then on. */
export function takenOffline(
  connection: CommandContext['connection'],
  { entry, at }: Pick<Refusal, 'entry' | 'at'>,
): boolean {
  const at1 = 'SELECT 1 FROM live_interval WHERE entry = ?';
  const ended = statement(connection, `${at1} AND ends = ?`).get(entry, at) !== undefined;
  return ended && statement(connection, `${at1} AND starts = ?`).get(entry, at) === undefined;
}

import { z } from 'zod';
import { readKey } from '@/core/forecast/read-set.ts';
import { type MediaRow, mediaWriter, mediumNow, versionsOf } from '../../store/media.ts';
import { statement } from '../../store/statement.ts';
import { raisePublic } from '../../store/write.ts';
import { type CommandContext, Refused } from '../definition.ts';

/** What is known of a file that is kept. */
export const keptFile = z.strictObject({
  /** SHA-256, hex. */
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  mime: z.string().max(100),
  bytes: z.int().min(1),
  width: z.int().min(0),
  height: z.int().min(0),
});

/** The name of a medium. */
export const mediumId = z.string().min(1).max(200);

/** A medium as it is now. @throws Refused where there is none */
export function mediumOf({ connection }: CommandContext, id: string): MediaRow {
  const found = id.startsWith('style/') ? null : mediumNow(connection, id);
  if (found) return found;
  const was = versionsOf(connection, id).length > 0;
  throw new Refused({
    code: 'unknown-medium',
    message: was ? `“${id}” was deleted.` : `There is no “${id.slice(0, 60)}” among the media.`,
    fix: was ? 'Bring it back first.' : 'Reload the page.',
  });
}

/** Makes a medium what it is from the write's instant on; null where it is not there any more. */
export function writeMedium(
  context: CommandContext,
  id: string,
  becomes: Omit<MediaRow, 'id' | 'starts' | 'ends' | 'author'> | null,
): void {
  const { connection, actor, at } = context;
  const end = 'UPDATE media SET ends = ? WHERE id = ? AND ends IS NULL';
  statement(connection, end).run(at, id);
  if (becomes)
    mediaWriter(connection)({ ...becomes, id, starts: at, ends: null, author: actor.id });
  raisePublic(connection, [readKey.media, readKey.medium(id)]);
}

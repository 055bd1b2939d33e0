import { z } from 'zod';
import { designSpec, siteSpec } from '@/core/design/spec.ts';
import type { Issue } from '@/core/issue.ts';
import { readKey } from '@/core/forecast/read-set.ts';
import { BEGINNING } from '@/core/time/interval.ts';
import { designsOf, storeRelease } from '../store/design-store.ts';
import { raisePublic } from '../store/write.ts';
import { Refused, command } from './definition.ts';

const text = z.string().max(1000);

const wrong = ({ path, message }: { path: PropertyKey[]; message: string }): Issue => ({
  code: 'wrong-form',
  path: `site/${path.join('/')}`,
  message: path[0] === 'name' ? 'A site has a name.' : message,
  fix: 'Correct it and start again.',
});

/** Begins a site with nothing in it but its settings. */
export const startSite = command({
  deed: 'change-design',
  input: z.strictObject({ name: text, url: text, zone: text, language: text }),
  beforeSite: true,
  run({ connection, actor, at }, given) {
    const read = siteSpec.safeParse(given);
    if (!read.success) throw new Refused(...read.error.issues.map(wrong));
    const site = read.data;
    if (designsOf(connection).at(at))
      throw new Refused({
        code: 'site-there',
        message: 'There is a site already.',
        fix: 'Reload the page.',
      });
    const design = designSpec.parse({ site, types: [] });
    storeRelease(connection, { design, starts: BEGINNING, author: actor.id, saved: at });
    raisePublic(connection, [readKey.design, readKey.everything]);
    return { name: site.name };
  },
});

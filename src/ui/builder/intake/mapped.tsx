'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { ContentType } from '@/core/design/spec.ts';
import { guessMapping } from '@/core/intake/guess.ts';
import type { Mapping } from '@/core/intake/mapping.ts';
import type { SourcesDetail } from '@/server/queries/sources.ts';
import { Issues } from '@/ui/primitives/issues.tsx';
import { counted } from '../format.ts';
import { command } from '../send.ts';
import { BroughtLines } from './brought-lines.tsx';
import { type Becomes, MappingTable } from './mapping-table.tsx';
import { MappingSettings } from './mapping-settings.tsx';
import { withNewFields, withoutNew } from './new-fields.ts';
import type { Sent, useBringIn } from './use-bring-in.ts';

interface Props {
  sent: Sent;
  bringing: ReturnType<typeof useBringIn>;
  /** Where it was brought in from before; null where it is new. */
  source: SourcesDetail['sources'][number] | null;
  types: ContentType[];
  /** The type that is thought of first. */
  first: ContentType;
}

/** What was sent, what of it becomes what, and what that would do. */
export function Mapped(props: Props) {
  const { sent, bringing, source, types, first } = props;
  const { seen, issues, files } = sent.staged;
  const guessFor = (t: ContentType): Mapping =>
    source?.mapping.type === t.key ? source.mapping : guessMapping(seen, t);
  const [mapping, setMapping] = useState(() => guessFor(first));
  const type = types.find(({ key }) => key === mapping.type) ?? first;
  const name = source?.name ?? sent.name;
  if (seen.records === 0) return <Unread issues={issues} onDrop={bringing.drop} />;
  return (
    <>
      <p>
        <span className="font-semibold">{name}</span>
        <span className="text-muted">{` · ${counted(seen.records, 'record')}, ${counted(files, 'picture or file', 'pictures and files')}`}</span>
      </p>
      <Issues issues={issues.slice(0, 20).map(withPlace)} title={`Not read: ${issues.length}`} />
      <MappingSettings
        {...{ mapping, seen, types }}
        isAgain={source !== null}
        onChange={setMapping}
        onType={(key) => setMapping({ ...guessFor(types.find((t) => t.key === key)!) })}
      />
      <MappingTable
        keys={seen.keys}
        records={seen.records}
        type={type}
        becomes={mapping.fields}
        onChange={(fields: Becomes) => setMapping({ ...mapping, fields })}
      />
      <Deeds {...props} mapping={mapping} type={type} name={name} />
    </>
  );
}

/** Trying what the mapping would do, and doing it. */
function Deeds({
  sent,
  bringing,
  source,
  mapping,
  type,
  name,
}: Props & { mapping: Mapping; type: ContentType; name: string }) {
  const router = useRouter();
  const { tried, busy } = bringing;
  const fields = withoutNew(mapping.fields) as Mapping['fields'];
  const wanted = { source: source?.id ?? null, name, mapping: { ...mapping, fields } };
  const isTried = tried?.of === JSON.stringify(wanted);
  const load = async (): Promise<void> => {
    const made = withNewFields(type, sent.staged.seen.keys, mapping.fields, 'en');
    if (made.steps.length > 0) {
      const released = await command('release', { edit: { steps: made.steps } });
      if (!released.ok) return bringing.refuse(released.issues);
    }
    const all = { ...mapping, fields: made.becomes as Mapping['fields'] };
    if (await bringing.run('load', { ...wanted, mapping: all })) router.refresh();
  };
  return (
    <>
      {isTried && tried && <BroughtLines done={tried.done} would />}
      <div className="flex items-center gap-3">
        <button
          type="button"
          className={`button ${isTried ? '' : 'button-main'}`}
          disabled={busy !== null}
          onClick={() => void bringing.run('try', wanted)}
        >
          Try it
        </button>
        {isTried && (
          <button
            type="button"
            className="button button-main"
            disabled={busy !== null}
            onClick={() => void load()}
          >
            Bring it in
          </button>
        )}
        <button
          type="button"
          className="button-quiet"
          disabled={busy !== null}
          onClick={bringing.drop}
        >
          Let it be
        </button>
        {!isTried && (
          <span className="text-muted">
            Trying changes nothing; it tells what would come of it.
          </span>
        )}
      </div>
    </>
  );
}

function Unread({ issues, onDrop }: { issues: Sent['staged']['issues']; onDrop: () => void }) {
  return (
    <>
      <Issues issues={issues.slice(0, 20).map(withPlace)} title="Nothing in it can be read" />
      <p className="text-muted">
        There is no record in what was sent: no Markdown, no table with rows, no list of objects.
      </p>
      <button type="button" className="button self-start" onClick={onDrop}>
        Choose another
      </button>
    </>
  );
}

function withPlace<T extends { path?: string; line?: number; message: string }>(issue: T): T {
  return issue.path === undefined
    ? issue
    : { ...issue, message: `${issue.path}:${issue.line ?? 1}: ${issue.message}` };
}

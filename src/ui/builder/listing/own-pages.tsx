import type { ListingDetail } from '@/server/queries/listing.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { PartChoice } from '../part-choice.tsx';

type Spec = ListingDetail['spec'];

interface Props {
  spec: Spec;
  detail: ListingDetail;
  readOnly: boolean;
  onChange: (spec: Spec) => void;
}

/** What the listing's own pages are drawn by, the frame around them, and their feed. */
export function OwnPages({ spec, detail: { pages, frames }, readOnly, onChange }: Props) {
  const put = (name: 'template' | 'frame', key: string): void => {
    const { [name]: _, ...rest } = spec;
    onChange((key === '' ? rest : { ...rest, [name]: key }) as Spec);
  };
  return (
    <div className="border-t border-rule pt-2">
      <Line label="Its pages" htmlFor="listing-template">
        <PartChoice
          id="listing-template"
          value={spec.template}
          none="Automatic: its name, its cards, links to its pages"
          options={pages}
          readOnly={readOnly}
          onChange={(key) => put('template', key)}
        />
      </Line>
      {frames.length > 0 && (
        <Line label="Frame" htmlFor="listing-frame">
          <PartChoice
            id="listing-frame"
            value={spec.frame}
            none="As the site has it"
            options={frames}
            readOnly={readOnly}
            onChange={(key) => put('frame', key)}
          />
        </Line>
      )}
      <Feed {...{ spec, readOnly, onChange }} />
    </div>
  );
}

/** How many entries a feed tells where nobody says otherwise. */
const SIZE = 20;

/** Whether there is a feed of what is published last, and of how much. */
function Feed({ spec, readOnly, onChange }: Omit<Props, 'detail'>) {
  const { feed, ...rest } = spec;
  const put = (size: number | null): void =>
    onChange((size === null ? rest : { ...rest, feed: { size } }) as Spec);
  return (
    <Line label="Feed" htmlFor="listing-feed" help="Atom and JSON Feed, for feed readers.">
      <span className="flex min-h-8 items-center gap-2">
        <input
          id="listing-feed"
          type="checkbox"
          className="h-4 w-4 accent-spruce"
          checked={feed !== undefined}
          disabled={readOnly}
          onChange={(e) => put(e.target.checked ? SIZE : null)}
        />
        {feed && (
          <>
            the newest
            <input
              type="number"
              className="control !w-20"
              aria-label="Entries in the feed"
              min={1}
              max={100}
              value={feed.size}
              readOnly={readOnly}
              onChange={(e) => put(Math.min(100, Math.max(1, Math.round(Number(e.target.value)))))}
            />
            of its entries
          </>
        )}
      </span>
    </Line>
  );
}

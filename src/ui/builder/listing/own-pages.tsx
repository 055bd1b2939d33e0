import type { ListingDetail } from '@/server/queries/listing.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { PartChoice } from '../part-choice.tsx';

type Spec = ListingDetail['spec'];

/** What the listing's own pages are drawn by, and the frame around them. */
export function OwnPages({
  spec,
  detail: { pages, frames },
  readOnly,
  onChange,
}: {
  spec: Spec;
  detail: ListingDetail;
  readOnly: boolean;
  onChange: (spec: Spec) => void;
}) {
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
    </div>
  );
}

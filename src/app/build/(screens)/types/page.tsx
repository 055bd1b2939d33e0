import { counted } from '@/ui/builder/format.ts';
import { PartList } from '@/ui/builder/type/part-list.tsx';
import { type SearchParams, openScreen } from '../../screen.ts';

export const metadata = { title: 'Types' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { design } = await openScreen(searchParams);
  const types = design?.types ?? [];
  const rows = types.map((t) => ({
    href: `/build/types/${t.key}`,
    name: t.label,
    what: t.description,
    address: t.address ?? null,
    size: counted(t.fields.length, 'field'),
  }));
  return (
    <PartList
      title="Types"
      intro="What kinds of content there are, and what each becomes."
      heads={['Type', 'What it is']}
      without="no pages of its own"
      rows={rows}
      empty="No types yet. Load a site folder to begin: npx bontel load FOLDER"
    />
  );
}

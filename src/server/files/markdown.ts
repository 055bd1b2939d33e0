import remarkGfm from 'remark-gfm';
import remarkParse from 'remark-parse';
import { unified } from 'unified';
import type { Nodes, PhrasingContent, Root, Table } from 'mdast';
import { type RichNode, isSafeLink } from '@/core/rich-text.ts';

const parser = unified().use(remarkParse).use(remarkGfm);

/** Reads Markdown (CommonMark with GFM tables and strikethrough) as a rich text document; raw HTML becomes text. */
export function markdownToRichText(source: string): RichNode {
  const root: Root = parser.parse(source);
  const content = root.children.flatMap(block);
  return { type: 'doc', content: content.length > 0 ? content : [{ type: 'paragraph' }] };
}

type Mark = NonNullable<RichNode['marks']>[number];

function block(node: Nodes): RichNode[] {
  switch (node.type) {
    case 'paragraph':
      return paragraph(node.children);
    case 'heading':
      return [
        { type: 'heading', attrs: { level: node.depth }, content: inline(node.children, []) },
      ];
    case 'blockquote':
      return [{ type: 'blockquote', content: node.children.flatMap(block) }];
    case 'list':
      return [
        {
          type: node.ordered ? 'orderedList' : 'bulletList',
          ...(node.ordered ? { attrs: { start: node.start ?? 1 } } : {}),
          content: node.children.flatMap(block),
        },
      ];
    case 'listItem': {
      const content = node.children.flatMap(block);
      return [
        {
          type: 'listItem',
          content: content[0]?.type === 'paragraph' ? content : [{ type: 'paragraph' }, ...content],
        },
      ];
    }
    case 'code':
      return [
        {
          type: 'codeBlock',
          content: node.value === '' ? [] : [{ type: 'text', text: node.value }],
        },
      ];
    case 'thematicBreak':
      return [{ type: 'horizontalRule' }];
    case 'table':
      return [table(node)];
    case 'html':
      return [{ type: 'paragraph', content: [{ type: 'text', text: node.value }] }];
    default:
      return [];
  }
}

/** A paragraph; pictures in it stand as blocks of their own. */
function paragraph(children: PhrasingContent[]): RichNode[] {
  const out: RichNode[] = [];
  let run: PhrasingContent[] = [];
  const flush = (): void => {
    const content = inline(run, []);
    if (content.length > 0) out.push({ type: 'paragraph', content });
    run = [];
  };
  for (const child of children) {
    if (child.type !== 'image') run.push(child);
    else {
      flush();
      out.push({
        type: 'image',
        attrs: { src: child.url.replace(/^(\.\/)?media\//, ''), alt: child.alt ?? '' },
      });
    }
  }
  flush();
  return out;
}

function table(node: Table): RichNode {
  return {
    type: 'table',
    content: node.children.map((row, i) => ({
      type: 'tableRow',
      content: row.children.map((cell) => ({
        type: i === 0 ? 'tableHeader' : 'tableCell',
        content: [{ type: 'paragraph', content: inline(cell.children, []) }],
      })),
    })),
  };
}

const MARKS: Record<string, string> = { strong: 'bold', emphasis: 'italic', delete: 'strike' };

function inline(nodes: PhrasingContent[], marks: Mark[]): RichNode[] {
  return nodes.flatMap((node): RichNode[] => {
    const text = (value: string, more: Mark[] = []): RichNode[] => {
      const all = [...marks, ...more];
      return value === ''
        ? []
        : [{ type: 'text', text: value, ...(all.length > 0 ? { marks: all } : {}) }];
    };
    switch (node.type) {
      case 'text':
        return text(node.value.replace(/\n/g, ' '));
      case 'inlineCode':
        return text(node.value, [{ type: 'code' }]);
      case 'break':
        return [{ type: 'hardBreak' }];
      case 'html':
        return text(node.value);
      case 'link':
        return inline(
          node.children,
          isSafeLink(node.url) ? [...marks, { type: 'link', attrs: { href: node.url } }] : marks,
        );
      case 'strong':
      case 'emphasis':
      case 'delete':
        return inline(node.children, [...marks, { type: MARKS[node.type]! }]);
      default:
        return [];
    }
  });
}

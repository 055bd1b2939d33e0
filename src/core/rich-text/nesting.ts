import type { RichMark, RichNode } from './document.ts';

/** Whether two marks say the same. */
export function isSameMark(a: RichMark, b: RichMark): boolean {
  const same = (name: string): boolean => a.attrs?.[name] === b.attrs?.[name];
  return a.type === b.type && ['href', 'entry', 'title', 'style'].every(same);
}

/**
 * The marks of nodes in a line as elements nest around them, the outermost first: what goes on for
 * longer stands outside what ends sooner, and is one element, whatever else changes in it. Code
 * holds no other marks: it stands within them.
 */
export function nestedMarks(nodes: readonly Pick<RichNode, 'marks'>[]): RichMark[][] {
  let open: RichMark[] = [];
  return nodes.map(({ marks = [] }, i) => {
    if (marks.length === 0) return (open = []);
    const has = (mark: RichMark): boolean => marks.some((m) => isSameMark(m, mark));
    const ends = open.findIndex((mark) => !has(mark));
    let kept = ends < 0 ? open : open.slice(0, ends);
    const isNew = (m: RichMark): boolean => !kept.some((mark) => isSameMark(m, mark));
    if (kept.at(-1)?.type === 'code' && marks.some(isNew)) kept = kept.slice(0, -1);
    const begun = marks.filter(isNew);
    return (open = [...kept, ...byReach(begun, nodes, i)]);
  });
}

function byReach(
  marks: RichMark[],
  nodes: readonly Pick<RichNode, 'marks'>[],
  from: number,
): RichMark[] {
  if (marks.length < 2) return marks;
  const reach = (mark: RichMark): number => {
    let n = from;
    while (nodes[n + 1]?.marks?.some((m) => isSameMark(m, mark))) n++;
    return n;
  };
  const reaches = new Map(marks.map((mark) => [mark, reach(mark)]));
  const within = (mark: RichMark): number => (mark.type === 'code' ? 1 : 0);
  return [...marks].sort((a, b) => within(a) - within(b) || reaches.get(b)! - reaches.get(a)!);
}

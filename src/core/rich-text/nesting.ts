import type { RichMark, RichNode } from './document.ts';

/** Whether two marks say the same. */
export function isSameMark(a: RichMark, b: RichMark): boolean {
  const same = (name: string): boolean => a.attrs?.[name] === b.attrs?.[name];
  return a.type === b.type && ['href', 'entry', 'title', 'style'].every(same);
}

/** A mark, and how many that say the same stand around it: emphasis within emphasis is two. */
interface Layer {
  mark: RichMark;
  nth: number;
}

const isSameLayer = (a: Layer, b: Layer): boolean => a.nth === b.nth && isSameMark(a.mark, b.mark);

function layersOf({ marks = [] }: Pick<RichNode, 'marks'>): Layer[] {
  return marks.map((mark, i) => ({
    mark,
    nth: marks.slice(0, i).filter((m) => isSameMark(m, mark)).length,
  }));
}

/**
 * The marks of nodes in a line as elements nest around them, the outermost first: what goes on for
 * longer stands outside what ends sooner, and is one element, whatever else changes in it. Code
 * holds no other marks: it stands within them.
 */
export function nestedMarks(nodes: readonly Pick<RichNode, 'marks'>[]): RichMark[][] {
  const all = nodes.map(layersOf);
  let open: Layer[] = [];
  return all.map((layers, i) => {
    const ends = open.findIndex((layer) => !layers.some((l) => isSameLayer(l, layer)));
    let kept = ends < 0 ? open : open.slice(0, ends);
    const isNew = (l: Layer): boolean => !kept.some((layer) => isSameLayer(l, layer));
    if (kept.at(-1)?.mark.type === 'code' && layers.some(isNew)) kept = kept.slice(0, -1);
    open = [...kept, ...byReach(layers.filter(isNew), all, i)];
    return open.map(({ mark }) => mark);
  });
}

function byReach(layers: Layer[], all: readonly Layer[][], from: number): Layer[] {
  if (layers.length < 2) return layers;
  const reach = (layer: Layer): number => {
    let n = from;
    while (all[n + 1]?.some((l) => isSameLayer(l, layer))) n++;
    return n;
  };
  const reaches = new Map(layers.map((layer) => [layer, reach(layer)]));
  const within = ({ mark }: Layer): number => (mark.type === 'code' ? 1 : 0);
  return [...layers].sort((a, b) => within(a) - within(b) || reaches.get(b)! - reaches.get(a)!);
}

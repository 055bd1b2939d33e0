import sharp from 'sharp';
import type { Variety } from './variety.ts';

const INK = { ground: '#EEF1F6', ink: '#1E1B2E', beet: '#8E1F4F', green: '#C9D66B' };

/** A small generator of numbers in [0, 1) that gives the same row for the same name. */
export function numbers(name: string): () => number {
  let state = [...name].reduce(
    (h, c) => Math.imul(h ^ c.charCodeAt(0), 16777619) >>> 0,
    2166136261,
  );
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

const SHAPES: Record<string, string> = {
  beans: 'M-20 4 C-22 -16 -4 -20 4 -12 C10 -6 22 -8 22 4 C22 18 4 20 -4 12 C-10 8 -19 14 -20 4 Z',
  peas: 'M-15 0 A15 15 0 1 0 15 0 A15 15 0 1 0 -15 0 Z',
  carrots: 'M-5 -16 Q0 -22 5 -16 L3 17 Q0 23 -3 17 Z',
  beets: 'M-12 -10 L-3 -15 L11 -9 L15 4 L5 14 L-10 12 L-16 1 Z',
  tomatoes: 'M0 -19 C12 -10 15 4 9 14 C4 20 -4 20 -9 14 C-15 4 -12 -10 0 -19 Z',
  squashes: 'M0 -24 C17 -12 19 10 0 22 C-19 10 -17 -12 0 -24 Z',
  leaves: 'M0 -20 C6 -8 6 8 0 20 C-6 8 -6 -8 0 -20 Z',
};

/**
 * A packet's picture as WebP, 900 × 900 px: the family's seed, more of them the sooner it can be
 * picked; the second ink is off register.
 */
export async function seedPicture({
  id,
  family,
  days,
}: Pick<Variety, 'id' | 'family' | 'days'>): Promise<Buffer> {
  const random = numbers(id);
  const shape = SHAPES[family] ?? SHAPES.peas!;
  const count = Math.max(5, Math.round(1400 / days));
  const seeds: string[] = [];
  const spots: [number, number][] = [];
  for (let tries = 0; spots.length < count && tries < 4000; tries++) {
    const [x, y] = [90 + random() * 720, 90 + random() * 720];
    if (spots.every(([a, b]) => Math.hypot(a - x, b - y) > 118)) spots.push([x, y]);
  }
  for (const [x, y] of spots) {
    const turn = `rotate(${Math.round(random() * 360)}) scale(${(2.2 + random() * 0.7).toFixed(2)})`;
    seeds.push(
      `<g transform="translate(${x.toFixed(0)} ${y.toFixed(0)})"><path d="${shape}" transform="translate(5 5) ${turn}" fill="${INK.green}"/><path d="${shape}" transform="${turn}" fill="none" stroke="${INK.beet}" stroke-width="2.4"/></g>`,
    );
  }
  return webp(`<rect width="900" height="900" fill="${INK.ground}"/>${seeds.join('')}`);
}

/** A grower's picture: their initials between rows of seed. */
export async function growerPicture({ id, name }: { id: string; name: string }): Promise<Buffer> {
  const random = numbers(id);
  const rows = Array.from({ length: 9 }, (_, r) =>
    Array.from({ length: 12 }, (_, c) => {
      const [x, y, size] = [
        60 + c * 71 + random() * 14,
        90 + r * 90 + random() * 10,
        8 + random() * 9,
      ];
      return `<circle cx="${x + 4}" cy="${y + 4}" r="${size}" fill="${INK.green}"/><circle cx="${x}" cy="${y}" r="${size}" fill="none" stroke="${INK.beet}" stroke-width="4"/>`;
    }).join(''),
  ).join('');
  const initials = name
    .split(' ')
    .map((w) => [...w][0])
    .join('');
  return webp(
    `<rect width="900" height="900" fill="${INK.ground}"/>${rows}<rect x="220" y="290" width="460" height="320" fill="${INK.beet}"/><text x="450" y="520" font-family="DejaVu Serif, serif" font-size="210" fill="${INK.ground}" text-anchor="middle">${initials}</text>`,
  );
}

async function webp(inner: string): Promise<Buffer> {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="900" viewBox="0 0 900 900">${inner}</svg>`;
  return sharp(Buffer.from(svg)).webp({ quality: 70 }).toBuffer();
}

import { expect, test } from 'vitest';
import { checkWhole } from '../check-values.ts';
import { fieldSpec } from '../spec.ts';

const FILES: Record<string, { mime: string; bytes: number }> = {
  'pea.png': { mime: 'image/png', bytes: 40_000 },
  'leaflet.pdf': { mime: 'application/pdf', bytes: 9_000 },
  'bean.jpg': { mime: 'image/jpeg', bytes: 2_400_001 },
};
const wrong = (limits: object, ...photos: string[]): string[] => {
  const field = fieldSpec.parse({ key: 'photo', kind: 'media', many: true, ...limits });
  const world = { now: 0, zone: 'UTC', file: (id: string) => FILES[id] ?? null };
  return checkWhole([field], { photo: photos }, world).map(({ message }) => message);
};

test('a picture is of a format and a size that its field takes', () => {
  expect(wrong({}, 'pea.png', 'bean.jpg')).toEqual([]);
  expect(wrong({ formats: ['png', 'webp'] }, 'pea.png', 'bean.jpg')).toEqual([
    'Photo is PNG or WebP, and “bean.jpg” is JPEG.',
  ]);
  expect(wrong({}, 'leaflet.pdf')).toEqual(['Photo is a picture, and “leaflet.pdf” is PDF.']);
  expect(wrong({ formats: ['pdf'] }, 'leaflet.pdf')).toEqual([]);
  expect(wrong({ maxKilobytes: 2400 }, 'pea.png', 'bean.jpg')).toEqual([
    'Photo has at most 2,400 kB, and “bean.jpg” has 2,401.',
  ]);
  expect(wrong({ maxKilobytes: 2401 }, 'bean.jpg', 'gone.png')).toEqual([]);
});

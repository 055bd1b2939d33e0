import { describe, expect, test } from 'vitest';
import { type Media, UNTOLD } from '../design/values.ts';
import { drawnPicture, filePath, imagePath, stablePath } from './pictures.ts';

const medium = (about: Partial<Media>): Media => ({
  ...UNTOLD,
  ...{ id: 'a/pea.jpg', hash: 'ab', mime: 'image/jpeg', width: 1000, height: 500 },
  ...about,
});
const widths = (srcset: string): string[] => srcset.split(', ').map((s) => s.split(' ')[1]!);

describe('a picture', () => {
  test('offers all widths up to twice what it stands at, none wider than it is', () => {
    const shown = drawnPicture(medium({}), { width: 320 })!;
    expect(widths(shown.srcset)).toEqual(['160w', '320w', '480w', '640w']);
    expect(shown).toMatchObject({ src: '/media/ab/320', width: 320, height: 160 });
    expect(shown.sizes).toBe('(max-width: 320px) 100vw, 320px');
    const wide = drawnPicture(medium({}), { width: 800 })!;
    expect(widths(wide.srcset).at(-1)).toBe('1000w');
    expect(wide.srcset).toContain('/media/ab/1200 1000w');
  });

  test('never stands wider than it is', () => {
    expect(drawnPicture(medium({ width: 90, height: 45 }), { width: 800 })).toMatchObject({
      ...{ width: 90, height: 45, src: '/media/ab/160' },
      srcset: '/media/ab/160 90w',
    });
  });

  test('is cut around what matters, as wide as the cut allows', () => {
    const focus = { focusX: 10, focusY: 80 };
    const shown = drawnPicture(medium(focus), { width: 800, ratio: '1:1' })!;
    expect(shown).toMatchObject({ width: 500, height: 500, src: '/media/ab/640-1x1-10-80' });
    expect(widths(shown.srcset).at(-1)).toBe('500w');
  });

  test('that is decorative has no alternative text', () => {
    const alt = (about: Partial<Media>) => drawnPicture(medium(about), { width: 160 })!.alt;
    expect(alt({ alt: 'A pea' })).toBe('A pea');
    expect(alt({ alt: 'A pea', decorative: true })).toBe('');
  });

  test('of lines is sent whole, at any width, but where it is cut', () => {
    const drawing = medium({ mime: 'image/svg+xml', id: 'pea.svg', width: 10, height: 5 });
    expect(drawnPicture(drawing, { width: 640 })).toMatchObject({
      ...{ src: '/media/ab/pea.svg', srcset: '', width: 640, height: 320 },
    });
    const cut = drawnPicture(drawing, { width: 320, ratio: '1:1' })!;
    expect(widths(cut.srcset)).toEqual(['160w', '320w', '480w', '640w']);
  });
});

test('what is no picture is not drawn; its address is that of the file', () => {
  const leaflet = medium({ mime: 'application/pdf', id: 'docs/a b?.pdf', width: 0, height: 0 });
  expect(drawnPicture(leaflet, { width: 320 })).toBeNull();
  expect(imagePath(leaflet, 320)).toBe('/media/ab/a%20b%3F.pdf');
  expect(filePath(leaflet)).toBe('/media/ab/a%20b%3F.pdf');
  expect(stablePath('docs/a b?.pdf')).toBe('/media/docs/a%20b%3F.pdf');
  expect(stablePath('pea.jpg', 320)).toBe('/media/pea.jpg?width=320');
});

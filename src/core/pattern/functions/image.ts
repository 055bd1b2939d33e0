import { one } from '../types.ts';
import type { PatternFunction } from './definition.ts';

export const image: PatternFunction = {
  name: 'image',
  doc: 'The address of a picture at a width in pixels.',
  parameters: [
    { name: 'picture', kinds: ['media'], takes: 'one' },
    { name: 'width', kinds: ['number'], takes: 'one' },
  ],
  returns: () => one('text'),
  call: ([media, width], scope) => scope.imageUrl(media, Number(width)),
  example: {
    pattern: '{image(picture, 320)}',
    fields: { picture: { kind: 'media', value: { id: 'pea', alt: 'A pea' } } },
    result: '/media/pea/320',
  },
};

import { one } from '../types.ts';
import type { PatternFunction } from './definition.ts';

export const pad: PatternFunction = {
  name: 'pad',
  doc: 'A number with zeros before it, so that it has at least so many digits.',
  parameters: [
    { name: 'number', kinds: ['number'], takes: 'one' },
    { name: 'digits', kinds: ['number'], takes: 'one' },
  ],
  returns: () => one('text'),
  call: ([value, digits]) => {
    const n = value as number;
    return (n < 0 ? '-' : '') + String(Math.abs(n)).padStart(Math.min(100, Number(digits)), '0');
  },
  example: {
    pattern: '{pad(stock, 3)}',
    fields: { stock: { kind: 'number', value: 7 } },
    result: '007',
  },
};

import { formatNumber } from '../to-text.ts';
import { one } from '../types.ts';
import type { PatternFunction } from './definition.ts';

export const number: PatternFunction = {
  name: 'number',
  doc: 'A number in the language’s form, with so many decimals.',
  parameters: [
    { name: 'number', kinds: ['number'], takes: 'one' },
    { name: 'decimals', kinds: ['number'], takes: 'one', optional: true },
  ],
  returns: () => one('text'),
  call: ([value, decimals], scope) => {
    const places =
      decimals === undefined ? undefined : Math.min(15, Math.max(0, Math.floor(Number(decimals))));
    return scope.address
      ? places === undefined
        ? String(value)
        : (value as number).toFixed(places)
      : formatNumber(value as number, scope.language, places);
  },
  example: {
    pattern: '{number(stock, 1)}',
    fields: { stock: { kind: 'number', value: 1234.5 } },
    result: '1,234.5',
  },
};

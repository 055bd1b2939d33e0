/** Some of the entries, by the numbers that the content table gives them: 1 for each that is in. */
export type Numbers = Uint8Array;

const COMMA = 44;
const ZERO = 48;

/** The whole numbers of a text that has commas between them. */
export function numbersIn(text: string): Int32Array {
  if (text === '') return new Int32Array(0);
  const out = new Int32Array(Math.ceil(text.length / 2));
  let count = 0;
  let number = 0;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code !== COMMA) {
      number = number * 10 + code - ZERO;
      continue;
    }
    out[count++] = number;
    number = 0;
  }
  out[count++] = number;
  return out.slice(0, count);
}

/** The entries of a list of numbers; none beyond `most`. */
export function numbersOf(list: Iterable<number>, most: number): Numbers {
  const out = new Uint8Array(most + 1);
  for (const number of list) if (number <= most) out[number] = 1;
  return out;
}

/** Those that are in both. */
export function both(a: Numbers, b: Numbers): Numbers {
  const out = new Uint8Array(a.length);
  for (let i = 0; i < a.length; i++) out[i] = a[i]! & b[i]!;
  return out;
}

/** Those that are in one of them. */
export function either(a: Numbers, b: Numbers): Numbers {
  const out = new Uint8Array(a.length);
  for (let i = 0; i < a.length; i++) out[i] = a[i]! | b[i]!;
  return out;
}

/** Those that are in the first and not in the second. */
export function without(a: Numbers, b: Numbers): Numbers {
  const out = new Uint8Array(a.length);
  for (let i = 0; i < a.length; i++) out[i] = a[i]! & (b[i]! ^ 1);
  return out;
}

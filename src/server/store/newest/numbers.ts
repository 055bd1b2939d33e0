/** Some of the entries, by the numbers that the content table gives them: 1 for each that is in. */
export type Numbers = Uint8Array;

/** The entries of a list of numbers; none beyond `most`. */
export function numbersOf(list: readonly number[], most: number): Numbers {
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

declare module 'wawoff2' {
  const wawoff2: {
    /** The font that a file in WOFF2 (W3C) holds. @throws where it is none, or above 30 MB. */
    decompress(woff2: Uint8Array): Promise<Uint8Array>;
  };
  export default wawoff2;
}

declare module 'opentype.js' {
  type Names = Partial<Record<string, Partial<Record<string, string>>>>;
  /** What is read of a font (OpenType 1.9). */
  export interface Font {
    names: Partial<Record<'windows' | 'macintosh' | 'unicode', Names>>;
    numGlyphs: number;
    tables: {
      os2?: { usWeightClass?: number; fsSelection?: number };
      fvar?: { axes: { tag: string; minValue: number; maxValue: number }[] };
    };
  }
  const opentype: {
    /** @throws where it is no font */
    parse(font: ArrayBuffer): Font;
  };
  export default opentype;
}

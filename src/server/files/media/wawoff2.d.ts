declare module 'wawoff2' {
  const wawoff2: {
    /** The font that a file in WOFF2 (W3C) holds. @throws where it is none, or above 30 MB. */
    decompress(woff2: Uint8Array): Promise<Uint8Array>;
  };
  export default wawoff2;
}

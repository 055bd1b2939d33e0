declare module 'commonmark-spec' {
  const spec: {
    tests: { number: number; section: string; markdown: string; html: string }[];
  };
  export default spec;
}

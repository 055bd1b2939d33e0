/** What work done little by little gives in the end. */
export function drained<T>(work: Generator<unknown, T>): T {
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
  }
}

/** Work done little by little that tells nothing. */
export function* quietly<T>(work: Generator<unknown, T>): Generator<null, T> {
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
    yield null;
  }
}

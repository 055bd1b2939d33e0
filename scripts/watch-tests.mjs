// A reporter that says at once what failed, and every minute what has been running for long: a
// test that never ends leaves no other trace.
const LOOKS_EVERY = 60_000;
const LONG = 5 * 60_000;

/** Prints to the standard output; used by Vitest beside its own reporters. */
export default class WatchTests {
  #running = new Map();
  #looking;

  onInit() {
    this.#looking = setInterval(() => this.#say(), LOOKS_EVERY);
    this.#looking.unref();
  }

  onTestModuleStart(file) {
    this.#running.set(file.id, { name: file.relativeModuleId, from: Date.now() });
  }

  onTestModuleEnd(file) {
    this.#running.delete(file.id);
  }

  onTestCaseReady(test) {
    const name = `${test.module.relativeModuleId}: ${test.fullName}`;
    this.#running.set(test.id, { name, from: Date.now() });
  }

  onTestCaseResult(test) {
    this.#running.delete(test.id);
    const { state, errors } = test.result();
    if (state !== 'failed') return;
    console.log(`\nFAIL ${test.module.relativeModuleId}: ${test.fullName}`);
    for (const { message } of errors) console.log(`     ${message.slice(0, 1000)}`);
  }

  onTestRunEnd() {
    clearInterval(this.#looking);
  }

  #say() {
    for (const { name, from } of this.#running.values()) {
      const spent = Date.now() - from;
      if (spent > LONG) console.log(`\n  … ${Math.round(spent / 1000)} s: ${name}`);
    }
  }
}

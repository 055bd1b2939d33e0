import { describe, expect, onTestFinished, test } from 'vitest';
import { WorkerThread } from './worker-thread.ts';

const file = new URL('../../../tests/fixtures/threads/odd.mjs', import.meta.url);

async function thread(data: unknown = null) {
  const started = await WorkerThread.start<string, string>({
    file,
    data,
    lost: (loss) => loss,
    patience: 2000,
  });
  onTestFinished(() => started.stop(100));
  return started;
}

describe('a thread', () => {
  test('that hangs is ended, the person told, and the next served', async () => {
    const odd = await thread();
    const [hung, next] = await Promise.all([odd.ask('hang'), odd.ask('one')]);
    expect([hung, next]).toEqual(['stuck', 'answered one']);
  });

  test('that ends or throws is replaced, again and again', async () => {
    const odd = await thread();
    for (const question of ['end', 'throw', 'end']) {
      expect(await odd.ask(question)).toBe('crashed');
      expect(await odd.ask('after')).toBe('answered after');
    }
  });

  test('that shows steps may take longer than its patience', async () => {
    const odd = await thread();
    expect(await odd.ask('go on')).toBe('answered go on');
  });

  test('answers what can wait after all else', async () => {
    const odd = await thread();
    const order: string[] = [];
    const ask = (question: string, canWait: boolean) =>
      odd.ask(question, { canWait }).then((answer) => order.push(answer));
    await Promise.all([ask('a', false), ask('later', true), ask('b', false), ask('c', false)]);
    expect(order).toEqual(['answered a', 'answered b', 'answered c', 'answered later']);
  });

  test('ends in time even where it hangs', async () => {
    const odd = await thread();
    const hung = odd.ask('hang');
    await new Promise((done) => setTimeout(done, 200));
    await odd.stop(500);
    expect(await hung).toMatch(/crashed|stuck/);
  });

  test('that cannot start says so', async () => {
    await expect(thread('never')).rejects.toThrow('cannot start');
  });
});

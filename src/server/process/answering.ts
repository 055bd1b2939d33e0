import { parentPort } from 'node:worker_threads';
import type { FromThread, ToThread } from './worker-thread.ts';

const STEP_MS = 1000;

/**
 * Inside a thread: answers questions one after the other with a function, and ends when asked to.
 * `answer` may show steps; they are passed on at most once a second.
 */
export function answerQuestions<Q, A>(
  answer: (question: Q, step: () => void) => A,
  end: () => void,
): void {
  const port = parentPort!;
  const say = (message: FromThread<A>): void => port.postMessage(message);
  let last = 0;
  const step = (): void => {
    const now = Date.now();
    if (now - last < STEP_MS) return;
    last = now;
    say({ step: true });
  };
  port.on('message', (message: ToThread<Q>) => {
    if (message === 'stop') {
      end();
      port.close();
    } else say({ answer: answer(message.question, step) });
  });
  say({ ready: true });
}

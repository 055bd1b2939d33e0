import type { Result } from '@/core/issue.ts';
import type { RunningServer } from './run.ts';

/** Somebody signed in to a running server, without a browser. */
export interface Session {
  command: (name: string, input: unknown, job?: string) => Promise<Result<unknown>>;
  request: (path: string, method?: string, body?: BodyInit) => Promise<Response>;
}

/** Signs in with a server's link. */
export async function signIn({ url, link }: RunningServer): Promise<Session> {
  const token = new URL(link!).hash.replace(/^#(token=)?/, '');
  const headers: Record<string, string> = { origin: url, 'content-type': 'application/json' };
  const body = JSON.stringify({ token });
  const session = await fetch(`${url}/api/session`, { method: 'POST', headers, body });
  headers.cookie = session.headers
    .getSetCookie()
    .map((line) => line.split(';')[0]!)
    .join('; ');
  return {
    command: async (name, input, job) => {
      const address = `${url}/api/command/${name}${job ? `?job=${job}` : ''}`;
      const answer = await fetch(address, { method: 'POST', headers, body: JSON.stringify(input) });
      return (await answer.json()) as Result<unknown>;
    },
    request: (path, method = 'GET', body) =>
      fetch(url + path, { method, headers, ...(body === undefined ? {} : { body }) }),
  };
}

import type { IncomingMessage } from 'node:http';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { parseInput } from './json-input.ts';
import { denyBuilder } from './limits.ts';
import { allowedHosts, denyOrigin, scrub } from './origins.ts';
import { WrongSetting, readSettings } from './settings.ts';

interface Asked {
  method?: string;
  url?: string;
  headers?: Record<string, string>;
}
const request = ({ method = 'GET', url = '/', headers = {} }: Asked): IncomingMessage =>
  ({
    method,
    url,
    headers: { ...headers },
    socket: { remoteAddress: '10.0.0.9' },
  }) as unknown as IncomingMessage;

describe('hosts and origins', () => {
  const hosts = allowedHosts(4300, 'https://seeds.example', ' build.example , Other.example:8080,');
  const status = (asked: Asked): number | undefined => denyOrigin(request(asked), hosts)?.status;

  test.each([
    ['127.0.0.1:4300', undefined],
    ['LOCALHOST:4300', undefined],
    ['[::1]:4300', undefined],
    ['seeds.example', undefined],
    ['build.example', undefined],
    ['other.example:8080', undefined],
    ['seeds.example:4300', 421],
    ['evil.example', 421],
    ['', 421],
  ])('host "%s" is answered with %s', (host, expected) => {
    expect(status({ headers: { host } })).toBe(expected);
  });

  test('a request without a host is refused', () => {
    expect(status({})).toBe(400);
  });

  test.each([
    ['http://127.0.0.1:4300', undefined],
    ['https://127.0.0.1:4300', undefined],
    ['http://127.0.0.1:4301', 403],
    ['https://evil.example', 403],
    ['null', 403],
    ['nonsense', 403],
  ])('a change from the origin "%s" is answered with %s', (origin, expected) => {
    const headers = { host: '127.0.0.1:4300', origin };
    expect(status({ method: 'POST', headers })).toBe(expected);
    expect(status({ method: 'DELETE', headers })).toBe(expected);
    expect(status({ method: 'GET', headers })).toBeUndefined();
  });

  test('a change that does not say where it comes from is refused', () => {
    expect(status({ method: 'POST', headers: { host: '127.0.0.1:4300' } })).toBe(403);
  });

  test('what a client may forge is dropped, and its address put in', () => {
    const asked = request({
      headers: {
        'x-forwarded-for': '1.1.1.1',
        'x-forwarded-host': 'evil.example',
        forwarded: 'for=1.1.1.1',
        'x-middleware-subrequest': 'x',
        'x-bontel-ip': '1.1.1.1',
        accept: 'text/html',
      },
    });
    scrub(asked);
    expect(asked.headers).toEqual({ accept: 'text/html', 'x-bontel-ip': '10.0.0.9' });
  });
});

describe('what of the builder may be asked', () => {
  const known = { cookie: 'a=b; bontel.session_token=x' };
  test.each<[Asked, number | undefined]>([
    [{ url: '/build' }, undefined],
    [{ url: '/build', method: 'POST' }, 405],
    [{ url: '/build', method: 'TRACE' }, 405],
    [{ url: '/api/command/x', method: 'POST' }, undefined],
    [{ url: '/api', method: 'PUT' }, 405],
    [{ url: '/apis', method: 'POST' }, 405],
    [{ url: '/build/%ff' }, 400],
    [{ url: '/build/%zz' }, 400],
    [{ url: '/build/%c3%a9' }, undefined],
    [
      { url: '/api/x', method: 'POST', headers: { ...known, 'content-length': '1048576' } },
      undefined,
    ],
    [{ url: '/api/x', method: 'POST', headers: { ...known, 'content-length': '1048577' } }, 413],
    [{ url: '/api/x', method: 'POST', headers: { 'content-length': '4097' } }, 413],
    [{ url: '/api/x', method: 'POST', headers: { 'content-length': '4096' } }, undefined],
    [{ url: '/api/session', method: 'POST', headers: { ...known, 'content-length': '5000' } }, 413],
    [{ url: '/api/x', method: 'POST', headers: { 'content-length': 'many' } }, 413],
    [{ url: '/api/x', method: 'POST', headers: { 'transfer-encoding': 'chunked' } }, 411],
  ])('%j is answered with %s', (asked, expected) => {
    expect(denyBuilder(request(asked))?.status).toBe(expected);
  });

  test('a method that is not taken is told which are', () => {
    expect(denyBuilder(request({ url: '/build', method: 'PUT' }))!.headers).toEqual({
      allow: 'GET, HEAD',
    });
  });
});

describe('JSON that somebody sent', () => {
  test('is read as it is', () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 5 }), (value) => {
        const text = JSON.stringify(value);
        expect(parseInput(text)).toEqual({ ok: true, value: JSON.parse(text) });
      }),
    );
  });

  test.each(['', '{', '[1,]', 'undefined', "{'a': 1}", '\u0000'])(
    '%j is refused in words',
    (text) => {
      expect(parseInput(text)).toMatchObject({ ok: false, issues: [{ code: 'wrong-form' }] });
    },
  );

  test('that nests too deep is refused before it is read; brackets in texts do not count', () => {
    const deep = (n: number): string => '['.repeat(n) + ']'.repeat(n);
    expect(parseInput(deep(120)).ok).toBe(true);
    expect(parseInput(deep(121)).ok).toBe(false);
    expect(parseInput(deep(5_000_000)).ok).toBe(false);
    expect(parseInput(JSON.stringify({ a: '[['.repeat(1000), b: '\\"[' })).ok).toBe(true);
  });
});

describe('settings', () => {
  const read = (env: Record<string, string>) => readSettings(env as unknown as NodeJS.ProcessEnv);

  test('have defaults', () => {
    expect(read({})).toEqual({
      port: 4300,
      hostname: '127.0.0.1',
      baseUrl: 'http://127.0.0.1:4300',
      dev: false,
      builder: true,
      hosts: '',
      logLevel: 'warn',
    });
  });

  test('are read from the environment', () => {
    const env = {
      PORT: '80',
      HOST: '0.0.0.0',
      BONTEL_URL: 'https://build.example/',
      BONTEL_BUILDER: 'off',
      BONTEL_HOSTS: 'a.example',
      LOG_LEVEL: 'debug',
    };
    expect(read(env)).toMatchObject({
      port: 80,
      hostname: '0.0.0.0',
      baseUrl: 'https://build.example',
      builder: false,
      hosts: 'a.example',
      logLevel: 'debug',
    });
    expect(read({ LOG_LEVEL: 'shout' }).logLevel).toBe('warn');
  });

  test.each([
    [{ PORT: 'abc' }],
    [{ PORT: '0' }],
    [{ PORT: '65536' }],
    [{ PORT: '-1' }],
    [{ PORT: '1.5' }],
    [{ PORT: 'constructor' }],
    [{ BONTEL_URL: 'x' }],
    [{ BONTEL_URL: 'javascript:alert(1)' }],
    [{ BONTEL_URL: 'https://x.example/y' }],
    [{ BONTEL_URL: 'https://x.example/?y' }],
  ])('%j cannot be used, and what to do is said', (env) => {
    let wrong: unknown = null;
    try {
      read(env as Record<string, string>);
    } catch (error) {
      wrong = error;
    }
    expect(wrong).toBeInstanceOf(WrongSetting);
    expect((wrong as WrongSetting).fix).toMatch(/^Give /);
  });
});

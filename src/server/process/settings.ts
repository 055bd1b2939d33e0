import { z } from 'zod';

/** What the server is told by its environment. */
export interface ServerSettings {
  port: number;
  hostname: string;
  /** Scheme, host and port at which the builder is used. */
  baseUrl: string;
  dev: boolean;
  /** Whether the builder is served besides the public site. */
  builder: boolean;
  /** More hosts to answer for, as given. */
  hosts: string;
  logLevel: string;
}

/** A setting that cannot be used, with what to do about it. */
export class WrongSetting extends Error {
  constructor(
    message: string,
    readonly fix: string,
  ) {
    super(message);
  }
}

const LEVELS = ['fatal', 'error', 'warn', 'info', 'debug', 'trace', 'silent'] as const;

/** Reads the settings. @throws WrongSetting */
export function readSettings(env: NodeJS.ProcessEnv): ServerSettings {
  const port = z.coerce
    .number()
    .int()
    .min(1)
    .max(65_535)
    .safeParse(env.PORT ?? 4300);
  if (!port.success)
    throw new WrongSetting(
      `PORT is "${env.PORT}", and that is no port.`,
      'Give a whole number from 1 to 65535: PORT=4301 npm run demo',
    );
  const hostname = env.HOST || '127.0.0.1';
  const given = env.BONTEL_URL || `http://${hostname}:${port.data}`;
  const url = URL.canParse(given) ? new URL(given) : null;
  if (!url || !/^https?:$/.test(url.protocol) || !/^\/?$/.test(url.pathname + url.search))
    throw new WrongSetting(
      `BONTEL_URL is "${given}", and that is no address of a server.`,
      'Give scheme, host and port: BONTEL_URL=https://builder.example',
    );
  const level = LEVELS.find((l) => l === env.LOG_LEVEL);
  return {
    port: port.data,
    hostname,
    baseUrl: url.origin,
    dev: env.BONTEL_DEV === '1',
    builder: env.BONTEL_BUILDER !== 'off',
    hosts: env.BONTEL_HOSTS ?? '',
    logLevel: level ?? 'warn',
  };
}

import type { IncomingMessage } from 'node:http';
import type { Keys } from '../db/keys.ts';
import type { Actor } from '../permit.ts';

const BEARER = /^Bearer (bontel_[\w-]{40,60})$/i;

/** Whether a request says by a key who it is: RFC 6750; pages of other sites cannot. */
export function hasKey({ headers }: Pick<IncomingMessage, 'headers'>): boolean {
  return BEARER.test(headers.authorization ?? '');
}

/** Who a request's key speaks for; null without a key that holds. */
export function actorOfKey(keys: Keys, headers: Headers): Actor | null {
  const key = BEARER.exec(headers.get('authorization') ?? '')?.[1];
  const holder = key === undefined ? null : keys.holder(key);
  return holder && { id: `key-${holder.id}`, name: holder.name, role: 'builder' };
}

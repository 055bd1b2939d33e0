import { randomBytes } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { CLOSED_POLICY } from '../delivery/answer.ts';

/**
 * Headers that keep the builder to itself: its own scripts (each page's by a nonce), styles,
 * pictures and frames, nothing from other hosts. The framework reads the nonce from the request.
 */
export function protect(request: IncomingMessage, response: ServerResponse, dev: boolean): void {
  const path = (request.url ?? '/').split('?', 1)[0]!;
  response.setHeader('x-content-type-options', 'nosniff');
  response.setHeader('referrer-policy', 'same-origin');
  if (path === '/api/preview') return; // has a policy of its own
  const isScreen = path === '/build' || path.startsWith('/build/');
  const policy = isScreen ? screenPolicy(randomBytes(16).toString('base64'), dev) : CLOSED_POLICY;
  if (isScreen) request.headers['content-security-policy'] = policy;
  response.setHeader('content-security-policy', policy);
  if (!path.startsWith('/_next/')) response.setHeader('cache-control', 'private, no-store');
}

function screenPolicy(nonce: string, dev: boolean): string {
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${dev ? " 'unsafe-eval'" : ''}`,
    "style-src 'self' 'unsafe-inline'", // places and sizes are set on elements
    "img-src 'self' data:",
    "font-src 'self'",
    `connect-src 'self'${dev ? ' ws:' : ''}`,
    "frame-src 'self'",
    "frame-ancestors 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "object-src 'none'",
  ].join('; ');
}

import { createHash } from 'node:crypto';
import type { RenderedPage } from '@/core/site/render.ts';

/**
 * The policy of public pages: this site's own styles, pictures, fonts and script; no frames, and
 * no forms that lead elsewhere.
 */
export const PUBLIC_POLICY =
  "default-src 'none'; style-src 'self'; script-src 'self'; connect-src 'self'; img-src 'self'; font-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'self'";

/**
 * The headers a page goes out with, its ETag (RFC 9110 §8.8.3) and policy included; lower-case
 * names.
 */
export function publicHeaders(page: RenderedPage): Record<string, string> {
  return {
    ...page.headers,
    etag: `"${createHash('sha256').update(page.body).digest('base64url').slice(0, 22)}"`,
    'content-security-policy': PUBLIC_POLICY,
    'x-content-type-options': 'nosniff',
    'referrer-policy': 'strict-origin-when-cross-origin',
    vary: 'accept-encoding',
  };
}

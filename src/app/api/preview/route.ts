import { randomBytes } from 'node:crypto';
import { isWithinYears } from '@/core/time/interval.ts';
import { EDITING_SCRIPT, EDITING_STYLE } from './editing-script.ts';
import { MEASURE_SCRIPT } from './measure-script.ts';
import { SANDBOX_SCRIPT } from './sandbox-script.ts';
import { container } from '@/server/process/container.ts';

const MARKED = `[data-marked]{outline:2px solid #1B6B50;outline-offset:2px}
[data-written]{outline:2px solid #1B6B50;outline-offset:4px;white-space:pre-wrap}`;

/**
 * An empty page in the site's style, sandboxed; the builder sends it what to show. It holds
 * nothing of its own.
 */
export async function GET(request: Request): Promise<Response> {
  const search = new URL(request.url).searchParams;
  const asked = Number(search.get('at'));
  const isEdited = search.has('editing');
  const at = asked && isWithinYears(asked) ? asked : Date.now();
  const site = container().view.at(at)?.site;
  const nonce = randomBytes(16).toString('base64');
  const working = container().view.working(at)?.site;
  const unreleased =
    working && working.styleKey !== site?.styleKey
      ? `<style id="unreleased" nonce="${nonce}" media="not all" data-key="${working.styleKey}">${working.css.replaceAll('</', '<\\/')}</style>`
      : '';
  const style = site
    ? `<link rel="stylesheet" href="/style/${site.styleKey}.css">${unreleased}`
    : unreleased;
  const script = SANDBOX_SCRIPT + MEASURE_SCRIPT + (isEdited ? EDITING_SCRIPT : '');
  const html = [
    '<!DOCTYPE html><html lang="en"><head><meta charset="utf-8">',
    '<meta name="viewport" content="width=device-width, initial-scale=1"><title>Preview</title>',
    `${style}<style nonce="${nonce}">${MARKED}${isEdited ? EDITING_STYLE : ''}</style></head>`,
    `<body><script nonce="${nonce}">${script}</script></body></html>`,
  ].join('');
  return new Response(html, {
    headers: {
      'content-type': 'text/html; charset=utf-8',
      'cache-control': 'no-store',
      'x-content-type-options': 'nosniff',
      'content-security-policy': `sandbox allow-scripts allow-forms; default-src 'none'; style-src 'self' 'nonce-${nonce}'; img-src 'self'; font-src 'self'; script-src 'nonce-${nonce}'; base-uri 'none'; form-action 'none'; frame-ancestors 'self'`,
    },
  });
}

import { type FunctionComponent, createElement } from 'react';
import { renderToString } from 'react-dom/server';
import { describe, expect, test } from 'vitest';
import BuildError from '@/app/build/error.tsx';
import ScreenError from '@/app/build/(screens)/error.tsx';
import GlobalError from '@/app/global-error.tsx';

type Screen = FunctionComponent<{ error: Error & { digest?: string }; reset: () => void }>;

describe('what is shown where a fault of the program stops a screen', () => {
  test.each<[string, Screen]>([
    ['of the whole builder', GlobalError],
    ['of the builder’s frame', BuildError],
    ['of one screen', ScreenError],
  ])('%s: own words, what is safe, and two ways back', (_, screen) => {
    const error = new Error('secret detail at /home/somebody/file.ts:12');
    const html = renderToString(createElement(screen, { error, reset: () => undefined }));
    expect(html).toMatch(/<h1>[^<]*(could not be shown|stopped)/);
    expect(html).toContain('Nothing you saved is');
    expect(html).toMatch(/<button[^>]*>Try again<\/button>/);
    expect(html).toMatch(/<a[^>]*href="\/build"/);
    expect(html).not.toContain('secret detail');
    expect(html).not.toMatch(/Something went wrong|Application error/i);
  });
});

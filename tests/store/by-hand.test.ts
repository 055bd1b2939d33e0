import { describe, expect, test } from 'vitest';
import { addressesByHand } from '@/server/queries/by-hand.ts';
import { entry } from '../helpers/notes.ts';
import { ANN, FILES, NOW, done, running, site } from '../helpers/seeds.ts';

const MINUTE = 60_000;
const held = async () => {
  const s = await site({
    ...FILES,
    'entries/seed/two.json': [entry('fern', 'Fern', ['2026-01-01/'])],
  });
  const answer = (path: string, after: number): [number, string | undefined] => {
    const { status, headers } = s.view.render(path, NOW + after * MINUTE)!;
    return [status, headers['location']];
  };
  return { ...s, run: running(s), answer };
};

describe('an address set by hand', () => {
  test('stands at once in place of the pattern’s, which leads on, until it is ended', async () => {
    const { run, answer, view } = await held();
    const { id } = done(
      run('setByHand', { entry: 'ecole', path: '/school', from: null, to: null }),
    );
    expect(answer('/school', 1)).toEqual([200, undefined]);
    expect(answer('/seeds/ecole', 1)).toEqual([308, '/school']);
    expect(addressesByHand(view, ANN, 'ecole', NOW + MINUTE)).toMatchObject([{ path: '/school' }]);
    done(run('endByHand', { id, entry: 'ecole' }));
    expect(answer('/seeds/ecole', 2)).toEqual([200, undefined]);
    expect(answer('/school', 2)).toEqual([308, '/seeds/ecole']);
    expect(addressesByHand(view, ANN, 'ecole', NOW + 2 * MINUTE)).toEqual([]);
    expect(run('endByHand', { id, entry: 'ecole' }).ok).toBe(false);
  });

  test('has its time; taken back before that it never was', async () => {
    const { run, answer } = await held();
    const times = { from: '2026-07-02T10:00:00Z', to: '2026-07-03T10:00:00Z' };
    const { id } = done(run('setByHand', { entry: 'ecole', path: '/school', ...times }));
    const [before, during, after] = [60, 24 * 60, 48 * 60];
    expect(answer('/school', before)[0]).toBe(404);
    expect(answer('/school', during)).toEqual([200, undefined]);
    expect(answer('/school', after)).toEqual([308, '/seeds/ecole']);
    done(run('endByHand', { id, entry: 'ecole' }));
    expect(answer('/school', during)[0]).toBe(404);
  });

  test.each([
    ['/seeds/fern', 'is taken'],
    ['/in-stock', 'a listing stands there'],
    ['/build/x', 'keeps it for itself'],
    ['/A b', 'small letters'],
    ['/', 'site’s settings'],
    ['/in-stock/feed.atom', 'Feeds'],
  ])('is refused where it cannot be had, and never numbered: %s', async (path, words) => {
    const { run, answer } = await held();
    const refused = run('setByHand', { entry: 'ecole', path, from: null, to: null });
    expect(refused.ok ? '' : refused.issues[0]!.message).toContain(words);
    expect(answer('/seeds/ecole', 1)).toEqual([200, undefined]);
  });

  test('is refused where it ends before it starts, or lies in the past', async () => {
    const { run } = await held();
    const set = (from: string | null, to: string | null): boolean =>
      run('setByHand', { entry: 'ecole', path: '/school', from, to }).ok;
    expect(set('2026-07-05T10:00:00Z', '2026-07-04T10:00:00Z')).toBe(false);
    expect(set('2026-06-05T10:00:00Z', null)).toBe(false);
    expect(run('setByHand', { entry: 'nobody', path: '/x', from: null, to: null }).ok).toBe(false);
  });
});

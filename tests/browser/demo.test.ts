import { expect, test } from 'vitest';
import { cookies, press, publicPage, see, serveBuilder, server } from '../helpers/builder.ts';

serveBuilder({ folder: null });

test('the demo is opened where there is no site, and takes the place of none', async () => {
  await press('Open the demo');
  await see('Coming up in two days');
  expect(await publicPage('/varieties')).toContain('Varieties');
  const again = await fetch(`${server.url}/api/demo`, {
    method: 'POST',
    headers: { cookie: await cookies(), origin: server.url },
  });
  expect(again.status).toBe(409);
  const stranger = await fetch(`${server.url}/api/demo`, {
    method: 'POST',
    headers: { origin: server.url },
  });
  expect(stranger.status).toBe(401);
});

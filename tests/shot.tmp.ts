import { startBrowser, picture } from '/work/main/tests/helpers/browser.ts';
// args: link|- then pairs path=name
const [link, ...pairs] = process.argv.slice(2);
const w = Number(process.env.W ?? 1280), h = Number(process.env.H ?? 800);
const b = await startBrowser(w, h);
const base = process.env.BASE ?? 'http://127.0.0.1:4300';
try {
  if (link !== '-') { await b.get(link!); await b.sleep(2500); }
  for (const p of pairs) {
    const i = p.lastIndexOf('=');
    await b.get(base + p.slice(0, i));
    await b.sleep(Number(process.env.WAIT ?? 1200));
    if (process.env.JS) { await b.executeScript(process.env.JS); await b.sleep(800); }
    await picture(b, `/tmp/shots/${p.slice(i + 1)}.png`);
    const logs = await b.manage().logs().get('browser').catch(() => []);
    for (const l of logs) console.log(p, l.level.name, l.message.slice(0, 300));
  }
} finally { await b.quit(); }

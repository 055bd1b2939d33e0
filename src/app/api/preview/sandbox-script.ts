/**
 * Runs in the sandbox: shows the page it is sent, keeps the scroll, and tells where a link or
 * a form leads that was pressed, and of pages whose blocks are marked which block the pointer is
 * over.
 */
export const SANDBOX_SCRIPT = `
const tell = (message) => parent.postMessage(message, '*');
const blocks = new Map();
const findBlocks = () => {
  blocks.clear();
  const begun = [];
  const walker = document.createTreeWalker(
    document.body,
    NodeFilter.SHOW_ELEMENT | NodeFilter.SHOW_COMMENT,
  );
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    if (node.nodeType === Node.COMMENT_NODE) {
      const mark = /^(\\/?)block (.+)$/.exec(node.data);
      if (mark && mark[1] === '')
        begun.push({ id: decodeURIComponent(mark[2]), parent: node.parentNode });
      else if (mark) begun.pop();
    } else for (const { id, parent } of begun) if (node.parentNode === parent) blocks.set(node, id);
  }
};
const blockAt = (target) => {
  for (let e = target; e instanceof Element; e = e.parentElement)
    if (blocks.has(e)) return blocks.get(e);
  return null;
};
const mark = (id) => {
  for (const [element, own] of blocks) element.toggleAttribute('data-marked', own === id);
};
let written = null;
/** A page that came while somebody wrote on the one there is; shown once they are done. */
let held = null;
/** Lets an element be written on: Enter or leaving it keeps it, Escape leaves it as it was. */
const writeOn = (element, value, hasLines, keep) => {
  const before = element.innerHTML;
  written = element;
  element.textContent = value;
  element.setAttribute('data-written', '');
  element.contentEditable = 'plaintext-only';
  element.focus();
  getSelection().selectAllChildren(element);
  const stop = new AbortController();
  const end = (keeps) => {
    stop.abort();
    const next = element.innerText.replace(/\\n$/, '');
    element.contentEditable = 'false';
    element.removeAttribute('data-written');
    written = null;
    if (keeps && next !== value) keep(next);
    else element.innerHTML = before;
    if (held) showPage(held);
  };
  element.addEventListener(
    'keydown',
    (event) => {
      const isEnd = event.key === 'Enter' && (!hasLines || event.ctrlKey || event.metaKey);
      if (!isEnd && event.key !== 'Escape') return;
      event.preventDefault();
      end(isEnd);
    },
    stop,
  );
  element.addEventListener('blur', () => end(true), stop);
};
let over = null;
addEventListener('mouseover', (event) => {
  const next = blockAt(event.target);
  if (next === over) return;
  over = next;
  tell({ over });
});
document.documentElement.addEventListener('mouseleave', () => tell({ over: (over = null) }));
addEventListener('message', (event) => {
  if (event.source !== parent) return;
  if (event.data?.marked !== undefined) mark(event.data.marked);
  if (event.data?.writeBlock) {
    const { id, value } = event.data.writeBlock;
    const [element] = [...blocks].find(([, own]) => own === id) ?? [];
    if (element)
      writeOn(element, value, false, (next) => tell({ wroteBlock: { id, value: next } }));
  }
  if (typeof event.data?.html !== 'string') return;
  if (written) held = event.data;
  else showPage(event.data);
});
const showPage = (data) => {
  held = null;
  const page = new DOMParser().parseFromString(data.html, 'text/html');
  const style = page.head.querySelector('link[rel=stylesheet]')?.getAttribute('href') ?? '';
  if (typeof data.css === 'string') {
    const sheet = new CSSStyleSheet();
    sheet.replaceSync(data.css);
    document.adoptedStyleSheets = [sheet];
    for (const e of document.head.querySelectorAll('link, #unreleased')) e.remove();
  }
  const own = document.getElementById('unreleased');
  if (own) own.media = style.includes(own.dataset.key) ? 'all' : 'not all';
  for (const e of page.body.querySelectorAll('meta, base, link, script, object, embed, iframe'))
    e.remove();
  document.documentElement.lang = page.documentElement.lang;
  const at = [scrollX, scrollY];
  document.body.replaceChildren(...page.body.childNodes);
  findBlocks();
  if (typeof layPlaces === 'function') layPlaces(data.editing === true);
  scrollTo(...at);
  tell({ height: document.documentElement.scrollHeight });
  if (data.measured) setTimeout(measure, 300);
};
addEventListener('click', (event) => {
  const pressed = blockAt(event.target);
  if (pressed !== null) tell({ pressed });
  const link = event.target.closest?.('a[href]');
  if (!link) return;
  event.preventDefault();
  tell({ path: link.getAttribute('href') });
});
addEventListener('submit', (event) => {
  event.preventDefault();
  const { target: form, submitter } = event;
  const asked = new URLSearchParams(new FormData(form, submitter));
  tell({ path: (form.getAttribute('action') ?? '') + '?' + asked });
});
addEventListener('dblclick', (event) => {
  const opened = blockAt(event.target);
  if (opened !== null) tell({ opened });
});
tell({ ready: true });
`;

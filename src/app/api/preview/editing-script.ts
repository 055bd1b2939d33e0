/**
 * Runs in the sandbox where a page is edited as it stands: shows what can be done at each place
 * that is marked, and lets texts be written on. It decides nothing: what is done, it tells.
 */
export const EDITING_SCRIPT = `
const TOOLS = {
  text: [['write', 'Change']],
  field: [['field', 'Edit']],
  entry: [
    ['entry', 'Edit'],
    ['retire', 'Retire'],
  ],
  listed: [
    ['entry', 'Edit'],
    ['pin', 'Stand first'],
    ['retire', 'Retire'],
  ],
  listing: [
    ['add', 'Add here'],
    ['listing', 'Listing'],
  ],
  picks: [
    ['add', 'Add here'],
    ['picks', 'Picks'],
  ],
  leading: [['add', 'Add here']],
};
const layer = document.createElement('div');
layer.id = 'tools';
/** What stands at places, in their order. */
let places = [];

const findPlaces = () => {
  const found = [];
  const open = [];
  const walker = document.createTreeWalker(
    document.body,
    NodeFilter.SHOW_ELEMENT | NodeFilter.SHOW_COMMENT,
  );
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    if (node.nodeType === Node.ELEMENT_NODE) {
      for (const place of open) if (node.parentNode === place.parent) place.elements.push(node);
      continue;
    }
    const mark = /^place (.+)$/.exec(node.data);
    if (mark) {
      const place = {
        ...JSON.parse(decodeURIComponent(mark[1])),
        parent: node.parentNode,
        elements: [],
      };
      const list = open.at(-1);
      if (place.of === 'entry' && list?.of === 'listing') place.listing = list.listing;
      open.push(place);
      found.push(place);
    } else if (node.data === '/place') open.pop();
  }
  return found.filter(({ elements }) => elements.length > 0);
};
const told = ({ parent, elements, tools, ...place }) => place;
const words = ({ name, elements: [first] }) =>
  (name || first.innerText || first.querySelector('img')?.alt || '')
    .trim()
    .replace(/\\s+/g, ' ')
    .slice(0, 40);

function layPlaces(editing) {
  layer.replaceChildren();
  written = null;
  places = editing ? findPlaces() : [];
  for (const place of places) {
    place.tools = document.createElement('div');
    for (const [deed, label] of TOOLS[place.listing && place.of === 'entry' ? 'listed' : place.of]) {
      const button = document.createElement('button');
      button.type = 'button';
      button.textContent = label;
      button.setAttribute('aria-label', label + ': ' + words(place));
      button.addEventListener('click', () => tell({ deed, place: told(place) }));
      place.tools.append(button);
    }
    place.tools.addEventListener('focusin', () => {
      place.elements[0].scrollIntoView({ block: 'nearest' });
      show([place]);
    });
    layer.append(place.tools);
  }
  document.body.append(layer);
}

const show = (shown) => {
  for (const place of places) {
    const is = shown.includes(place);
    place.tools.toggleAttribute('data-shown', is);
    for (const e of place.elements) e.toggleAttribute('data-place', is && place === shown[0]);
    if (!is) continue;
    const boxes = place.elements.map((e) => e.getBoundingClientRect());
    const right = Math.min(
      Math.max(...boxes.map((b) => b.right)),
      document.documentElement.clientWidth,
    );
    place.tools.style.left = Math.max(0, right + scrollX - place.tools.offsetWidth) + 'px';
    place.tools.style.top = Math.max(0, Math.min(...boxes.map((b) => b.top)) + scrollY - 4) + 'px';
  }
};
const placesAt = (target) => {
  const found = [];
  for (let e = target; e instanceof Element; e = e.parentElement)
    for (const place of places.toReversed()) if (place.elements.includes(e)) found.push(place);
  return found;
};
addEventListener('mouseover', (event) => {
  if (written || layer.contains(event.target)) return;
  show(placesAt(event.target));
});
addEventListener('click', (event) => {
  if (layer.contains(event.target) || written || event.target.closest?.('a[href]')) return;
  const place = placesAt(event.target).find(({ of }) => of === 'text');
  if (place) tell({ deed: 'write', place: told(place) });
});

const writeText = (asked, { value, hasLines }) => {
  const place = places.find(
    (p) => p.of === 'text' && p.entry === asked.entry && p.field === asked.field,
  );
  if (!place) return;
  show([]);
  writeOn(place.elements[0], value, hasLines, (next) =>
    tell({ wrote: { place: told(place), value: next } }),
  );
};
addEventListener('message', (event) => {
  if (event.source === parent && event.data?.write)
    writeText(event.data.write.place, event.data.write.text);
});
`;

/** How it looks: small buttons at the right of what they are about. */
export const EDITING_STYLE = `
#tools > div {
  position: absolute;
  top: 0;
  left: 0;
  z-index: 9999;
  display: flex;
  gap: 1px;
  opacity: 0;
  pointer-events: none;
}
#tools > [data-shown] {
  opacity: 1;
  pointer-events: auto;
}
#tools button {
  margin: 0;
  padding: 0 8px;
  height: 24px;
  border: 1px solid #1b6b50;
  border-radius: 4px;
  background: #fff;
  color: #1b6b50;
  font:
    500 12px/22px system-ui,
    sans-serif;
  letter-spacing: 0;
  text-transform: none;
  cursor: pointer;
  box-shadow: none;
}
#tools button:hover,
#tools button:focus-visible {
  background: #1b6b50;
  color: #fff;
}
[data-place] {
  outline: 1px solid #1b6b50;
  outline-offset: 2px;
}
`;

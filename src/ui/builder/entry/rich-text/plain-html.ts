/** What of a word processor's HTML is no words of the text. */
const NOISE = 'script, style, meta, link, title, o\\:p, xml, template, noscript, iframe, object';

/**
 * HTML that was pasted, in the forms that texts know: lists of word processors as lists, titles as
 * headings, and no pictures of elsewhere, whose words are given apart.
 */
export function plainHtml(html: string): { body: HTMLElement; pictures: string[] } {
  const { body } = new DOMParser().parseFromString(html, 'text/html');
  for (const comment of commentsIn(body)) comment.remove();
  for (const element of body.querySelectorAll(NOISE)) element.remove();
  makeLists(body);
  for (const element of body.querySelectorAll<HTMLElement>('p[class*="MsoTitle" i]'))
    renamed(element, 'h1');
  for (const element of body.querySelectorAll<HTMLElement>('[style]')) hideHidden(element);
  for (const cell of body.querySelectorAll('thead td')) renamed(cell, 'th');
  return { body, pictures: takePictures(body) };
}

function commentsIn(body: HTMLElement): ChildNode[] {
  const walker = document.createTreeWalker(body, NodeFilter.SHOW_COMMENT);
  const found: ChildNode[] = [];
  while (walker.nextNode()) found.push(walker.currentNode as ChildNode);
  return found;
}

/** What is not shown where it comes from is not pasted. */
function hideHidden(element: HTMLElement): void {
  if (/display:\s*none|mso-hide:\s*all/i.test(element.getAttribute('style') ?? ''))
    element.remove();
}

function renamed(element: Element, name: string): void {
  const other = document.createElement(name);
  other.append(...element.childNodes);
  element.replaceWith(other);
}

/** The level of a paragraph that a word processor draws as an item of a list; null for others. */
function levelOf(element: Element | null): number | null {
  if (element?.tagName !== 'P') return null;
  const level = /mso-list:\s*\S+\s+level(\d+)/i.exec(element.getAttribute('style') ?? '')?.[1];
  return level === undefined ? null : Number(level);
}

/** Paragraphs that only look like items become the items of lists, within each other by level. */
function makeLists(body: HTMLElement): void {
  for (const first of body.querySelectorAll('p')) {
    if (levelOf(first) === null || !first.isConnected) continue;
    const items: Element[] = [first];
    for (
      let next = first.nextElementSibling;
      levelOf(next) !== null;
      next = next!.nextElementSibling
    )
      items.push(next!);
    const anchor = document.createElement('div');
    first.before(anchor);
    anchor.replaceWith(listOf(items));
  }
}

function listOf(items: readonly Element[]): HTMLElement {
  const list = document.createElement(isNumbered(items[0]!) ? 'ol' : 'ul');
  const level = levelOf(items[0]!)!;
  for (let i = 0; i < items.length;) {
    const item = document.createElement('li');
    const paragraph = document.createElement('p');
    const own = items[i++]!;
    for (const marker of own.querySelectorAll('[style*="mso-list" i]')) marker.remove();
    paragraph.append(...own.childNodes);
    own.remove();
    item.append(paragraph);
    const within: Element[] = [];
    while (i < items.length && levelOf(items[i]!)! > level) within.push(items[i++]!);
    if (within.length > 0) item.append(listOf(within));
    list.append(item);
  }
  return list;
}

function isNumbered(item: Element): boolean {
  const marker = item.querySelector('[style*="mso-list" i]')?.textContent ?? '';
  return /^\s*\(?[0-9a-z]{1,4}[.)]/i.test(marker);
}

/** Takes out the pictures that are no media of this site, and gives their words. */
function takePictures(body: HTMLElement): string[] {
  const found: string[] = [];
  for (const picture of body.querySelectorAll('img')) {
    if (picture.dataset.media !== undefined) continue;
    found.push(picture.alt);
    picture.remove();
  }
  return found;
}

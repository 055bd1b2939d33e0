import { rowButtons } from './row-buttons.ts';

/** Somebody who types is left alone for so long, ms. */
const PAUSE_MS = 350;

/** Fields whose words are typed. */
const TYPED = 'input[type="search"]';

/** What a form asked for last; it gives way to what is asked for next. */
let asked: AbortController | null = null;

/** Lists follow as visitors narrow, search and order them: no press of the button is needed. */
export function liveForms(): void {
  let pause: ReturnType<typeof setTimeout> | undefined;
  const follow = (event: Event, wait: number): void => {
    const form = event.target instanceof Element ? event.target.closest('form.visitor') : null;
    if (!(form instanceof HTMLFormElement)) return;
    clearTimeout(pause);
    pause = setTimeout(() => void show(form), wait);
  };
  document.addEventListener('input', (event) => {
    if (event.target instanceof Element && event.target.matches(TYPED)) follow(event, PAUSE_MS);
  });
  document.addEventListener('change', (event) => {
    if (event.target instanceof Element && !event.target.matches(TYPED)) follow(event, 0);
  });
}

/** Shows the page that a form asks for in place of this one. */
async function show(form: HTMLFormElement): Promise<void> {
  asked?.abort();
  const own = (asked = new AbortController());
  const url = addressOf(form);
  const here = document.querySelector('main');
  here?.setAttribute('aria-busy', 'true');
  try {
    const answer = await fetch(url, { signal: own.signal });
    const text = await answer.text();
    if (own.signal.aborted) return;
    const page = new DOMParser().parseFromString(text, 'text/html');
    const main = page.querySelector('main');
    if (!answer.ok || !here || !main) return void location.assign(url);
    history.replaceState(null, '', url);
    document.title = page.title;
    put(here, main);
  } catch {
    // Without an answer the browser says itself what is wrong.
    if (!own.signal.aborted) location.assign(url);
  }
}

/** Where a form leads: what is left blank is left out. */
function addressOf(form: HTMLFormElement): string {
  const all = [...new FormData(form)].filter((e): e is [string, string] => e[1] !== '');
  const query = new URLSearchParams(all).toString();
  const path = form.getAttribute('action') ?? location.pathname;
  return query === '' ? path : `${path}?${query}`;
}

/** Puts other content in, with what is open and where somebody is kept as it is. */
function put(here: HTMLElement, main: HTMLElement): void {
  const open = [...here.querySelectorAll('form.visitor details')].map((d) => 'open' in d && d.open);
  const { activeElement: at } = document;
  const typed = at instanceof HTMLInputElement && at.matches(TYPED) ? at : null;
  here.replaceChildren(...main.childNodes);
  here.removeAttribute('aria-busy');
  rowButtons();
  here.querySelectorAll<HTMLDetailsElement>('form.visitor details').forEach((each, i) => {
    each.open ||= open[i] === true;
  });
  if (at instanceof HTMLInputElement || at instanceof HTMLSelectElement) focusOn(here, at);
  const field = document.activeElement;
  if (typed && field instanceof HTMLInputElement) {
    field.value = typed.value;
    field.setSelectionRange(typed.selectionStart, typed.selectionEnd);
  }
  tell(here.querySelector('form.visitor .found')?.firstChild?.textContent ?? '');
}

/** Puts the focus on the field that stands where one stood. */
function focusOn(
  here: HTMLElement,
  { name, value, type }: HTMLInputElement | HTMLSelectElement,
): void {
  const all = here.querySelectorAll<HTMLInputElement | HTMLSelectElement>('form.visitor [name]');
  const same = [...all].filter((field) => field.name === name);
  const one = type === 'checkbox' ? same.find((field) => field.value === value) : same[0];
  one?.focus({ preventScroll: true });
}

/** Has words read out. */
function tell(words: string): void {
  let told = document.querySelector<HTMLElement>('body > [role="status"]');
  if (!told) {
    told = document.createElement('p');
    told.setAttribute('role', 'status');
    // Out of sight, whatever the site's style says.
    Object.assign(told.style, { position: 'absolute', left: '-999px' });
    document.body.append(told);
  }
  told.textContent = words;
}

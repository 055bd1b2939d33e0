/** Part of a row's width that a press moves it by. */
const STEP = 0.8;

/** Gives sideways rows two buttons, where the browser makes none or the style has none. */
export function rowButtons(): void {
  for (const track of document.querySelectorAll<HTMLElement>('.row-track[data-further]'))
    if (!track.previousElementSibling?.matches('.row-button')) addButtons(track);
}

/** Whether the style has buttons for a row, in words or signs, and the browser makes them. */
function hasOwnButtons(track: HTMLElement): boolean {
  return getComputedStyle(track, '::scroll-button(inline-end)').content.includes('"');
}

function addButtons(track: HTMLElement): void {
  const buttons = [
    button('←', track.dataset['back']!, () => move(track, -1)),
    button('→', track.dataset['further']!, () => move(track, 1)),
  ] as const;
  const update = (): void => {
    const most = track.scrollWidth - track.clientWidth;
    buttons[0].disabled = track.scrollLeft <= 1;
    buttons[1].disabled = track.scrollLeft >= most - 1;
    const isIdle = most <= 1 || hasOwnButtons(track);
    for (const each of buttons) each.hidden = isIdle;
  };
  track.before(...buttons);
  track.addEventListener('scroll', update, { passive: true });
  new ResizeObserver(update).observe(track);
  update();
}

function button(sign: string, label: string, press: () => void): HTMLButtonElement {
  const made = document.createElement('button');
  made.type = 'button';
  made.className = 'row-button';
  made.textContent = sign;
  made.setAttribute('aria-label', label);
  made.addEventListener('click', press);
  return made;
}

/** How it scrolls, the style says: smoothly unless less motion is asked for. */
function move(track: HTMLElement, direction: 1 | -1): void {
  track.scrollBy({ left: direction * STEP * track.clientWidth });
}

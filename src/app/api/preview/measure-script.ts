/**
 * Runs in the sandbox where a template is arranged: tells what readers of the page would stumble
 * over that only its layout shows: words too faint to be read (WCAG 2.2, 1.4.3) and targets too
 * small to be pressed (2.5.8; links within a line of text are let be).
 */
export const MEASURE_SCRIPT = `
const MOST_MEASURED = 3000;
/** A colour as sRGB; null where it is said in another way, which is not judged. */
const colourOf = (css) => {
  if (!css.startsWith('rgb')) return null;
  const [r, g, b, a = 1] = css.match(/[\\d.]+/g).map(Number);
  return { rgb: [r, g, b], a };
};
const laidOver = ({ rgb, a }, below) => rgb.map((c, i) => c * a + below[i] * (1 - a));
const light = (rgb) => {
  const [r, g, b] = rgb.map((c) =>
    (c /= 255) <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4,
  );
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
};
/** What an element stands on; null where that is a picture, or not known. */
const groundOf = (element) => {
  const layers = [];
  for (let e = element; e; e = e.parentElement) {
    const { backgroundColor, backgroundImage } = getComputedStyle(e);
    if (backgroundImage !== 'none') return null;
    const colour = colourOf(backgroundColor);
    if (!colour) return null;
    if (colour.a > 0) layers.unshift(colour);
    if (colour.a === 1) break;
  }
  return layers.reduce((below, layer) => laidOver(layer, below), [255, 255, 255]);
};
const shortened = (text) => text.trim().replace(/\\s+/g, ' ').slice(0, 40);
const isSeen = (e) =>
  e.checkVisibility({ opacityProperty: true, visibilityProperty: true }) &&
  e.getClientRects().length > 0;

const faintWords = (elements) => {
  for (const element of elements) {
    const text = [...element.childNodes].find(
      (n) => n.nodeType === Node.TEXT_NODE && n.data.trim() !== '',
    );
    if (!text || !isSeen(element) || element.closest('.skip')) continue;
    const style = getComputedStyle(element);
    const ground = groundOf(element);
    const own = colourOf(style.color);
    if (!ground || !own) continue;
    const [a, b] = [light(laidOver(own, ground)), light(ground)].sort(
      (x, y) => y - x,
    );
    const size = parseFloat(style.fontSize);
    if (size === 0) continue;
    const wanted = size >= 24 || (size >= 18.66 && Number(style.fontWeight) >= 700) ? 3 : 4.5;
    const ratio = (a + 0.05) / (b + 0.05);
    if (ratio < wanted)
      return (
        '“' +
        shortened(text.data) +
        '” is too faint: ' +
        ratio.toFixed(1) +
        ' to 1 on what it stands on, and ' +
        wanted +
        ' to 1 is wanted.'
      );
  }
  return null;
};
const smallTargets = () => {
  const small = [...document.querySelectorAll('a[href], button, input, select, summary')].filter(
    (e) => {
      if (!isSeen(e) || e.closest('.skip, #tools')) return false;
      const isInLine =
        getComputedStyle(e).display === 'inline' &&
        e.closest('p, li, dd, td, h1, h2, h3, h4, h5, h6, figcaption')?.textContent.trim() !==
          e.textContent.trim();
      const { width, height } = e.getBoundingClientRect();
      return (
        !isInLine &&
        Math.min(width, Math.max(height, parseFloat(getComputedStyle(e).lineHeight) || 0)) < 24
      );
    },
  );
  if (small.length === 0) return null;
  return (
    small.length +
    (small.length === 1 ? ' target is' : ' targets are') +
    ' smaller than 24 px: “' +
    shortened(small[0].textContent) +
    '”.'
  );
};
function measure() {
  const faint = faintWords([...document.body.querySelectorAll('*')].slice(0, MOST_MEASURED));
  tell({ stumbles: [faint, smallTargets()].filter(Boolean) });
}
`;

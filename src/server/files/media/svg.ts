import sanitizeHtml from 'sanitize-html';

/** Elements of SVG 2 that draw, and what they draw with; nothing that runs, links or embeds. */
const ELEMENTS = (
  'svg g defs symbol use switch title desc path rect circle ellipse line polyline polygon text ' +
  'tspan textPath image linearGradient radialGradient stop clipPath mask pattern marker style ' +
  'view animate animateTransform animateMotion mpath filter feBlend feColorMatrix ' +
  'feComponentTransfer feComposite feConvolveMatrix feDiffuseLighting feDisplacementMap ' +
  'feDistantLight feDropShadow feFlood feFuncA feFuncB feFuncG feFuncR feGaussianBlur feImage ' +
  'feMerge feMergeNode feMorphology feOffset fePointLight feSpecularLighting feSpotLight feTile ' +
  'feTurbulence'
).split(' ');
/** Elements that go with all that stands in them. */
const WITH_CONTENT =
  'script foreignObject iframe object embed audio video canvas metadata handler listener set'.split(
    ' ',
  );
/** What may be led to: a part of the drawing itself, or a picture within it. */
const OWN = /^(#[^\s]*|data:image\/(png|jpe?g|gif|webp);base64,[a-z0-9+/=\s]*)$/i;
/** What stands before the drawing: byte-order mark, declarations, comments. */
const BEFORE = /^(?:\s|\ufeff|<\?[^>]*>|<!--[\s\S]*?-->|<!DOCTYPE[^[>]*(?:\[[\s\S]*?\]\s*)?>)*/i;
const NAMESPACE = 'http://www.w3.org/2000/svg';

/**
 * A drawing (SVG 2) without what could run, or fetch from elsewhere; null where the text is no
 * drawing. Entities that the document declares itself are not read.
 */
export function safeSvg(text: string): string | null {
  const markup = text.replace(BEFORE, '');
  if (!/^<svg[\s>]/.test(markup)) return null;
  const clean = sanitizeHtml(markup, {
    parser: { xmlMode: true, lowerCaseTags: false, lowerCaseAttributeNames: false },
    allowedTags: ELEMENTS,
    allowVulnerableTags: true, // style sheets are looked through below
    nonTextTags: WITH_CONTENT,
    allowedAttributes: false,
    allowedSchemesAppliedToAttributes: [],
    parseStyleAttributes: false,
    nestingLimit: 500,
    transformTags: {
      '*': (tagName, attribs) => ({ tagName, attribs: safeAttributes(attribs) }),
    },
    exclusiveFilter: ({ tag, text: inner, attribs }) =>
      (tag === 'style' && (/[<&]|\]\]>/.test(inner) || fetches(inner))) ||
      (tag.startsWith('animate') && /href|^on/i.test(attribs.attributeName ?? '')),
  });
  const end = clean.lastIndexOf('</svg>');
  const svg = end < 0 ? clean.trim() : clean.slice(0, end + '</svg>'.length).trim();
  if (!/^<svg[\s>]/.test(svg)) return null;
  return /^<svg[^>]*\sxmlns=/.test(svg) ? svg : svg.replace('<svg', `<svg xmlns="${NAMESPACE}"`);
}

function safeAttributes(given: Record<string, string>): Record<string, string> {
  return Object.fromEntries(
    Object.entries(given).filter(([name, value]) => {
      if (/^on/i.test(name) || name === 'base' || name === 'xml:base') return false;
      if (/(^|:)href$/i.test(name) || name === 'src') return OWN.test(value.trim());
      if (name.startsWith('xmlns')) return /^http:\/\/www\.w3\.org\//.test(value);
      if (name.includes(':') && !/^(xlink|xml):/.test(name)) return false;
      return !fetches(value);
    }),
  );
}

/** Whether CSS, or a value of an attribute, would fetch or run something. */
function fetches(css: string): boolean {
  const said = css.replace(/\/\*[\s\S]*?\*\//g, '');
  const elsewhere = [...said.matchAll(/url\(\s*["']?\s*([^)]*)/gi)].some(
    ([, target]) => !target!.startsWith('#'),
  );
  return elsewhere || /\\|@import|@font-face|expression\s*\(|javascript:|image-set/i.test(said);
}

const SCHEMES = new Set(['http:', 'https:', 'mailto:', 'tel:']);
const HERE = 'https://site.invalid/page';
/** Most links need no reading: a path of this site, where to write to, or a number to ring. */
const PLAIN = /^(?:\/(?![/\\])|mailto:|tel:)[!-[\]-~]*$/;

/**
 * Whether an address may stand in a link, canonical or menu: of the scheme http, https, mailto or
 * tel, or of this site, read as browsers read it (WHATWG URL): "/path" with one slash, "#part",
 * "other".
 */
export function isSafeLink(address: unknown): address is string {
  if (typeof address !== 'string') return false;
  if (PLAIN.test(address)) return true;
  if (/[\u0000-\u001f\u007f]|^ | $/.test(address)) return false;
  if (URL.canParse(address)) return SCHEMES.has(new URL(address).protocol);
  if (!URL.canParse(address, HERE)) return false;
  return !/^[/\\]{2}/.test(address) && new URL(address, HERE).host === new URL(HERE).host;
}

/** Whether an address may be where a redirect leads: as a link, but never relative to the page. */
export function isSafeTarget(address: string): boolean {
  return isSafeLink(address) && /^(\/|https?:|mailto:|tel:)/i.test(address);
}

/**
 * An address with everything percent-encoded that may not stand in one; codes that are there
 * stay.
 */
export function encodeAddress(address: string): string {
  return address.replace(/%(?![0-9a-f]{2})|[^%\w!#$&'()*+,./:;=?@~-]+/gi, (part) =>
    encodeURIComponent(part.replace(/\p{Surrogate}/gu, '\ufffd')),
  );
}

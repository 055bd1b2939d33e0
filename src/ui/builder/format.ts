/** Short words for an instant in a zone: "Tue 24 Nov, 14:05", with the year where it is not this one. */
export function instantWords(at: number, zone: string, now: number): string {
  const parts = (options: Intl.DateTimeFormatOptions, t = at): string =>
    new Intl.DateTimeFormat('en-IE', { timeZone: zone, ...options }).format(t);
  const year =
    parts({ year: 'numeric' }) === parts({ year: 'numeric' }, now)
      ? {}
      : { year: 'numeric' as const };
  const seconds =
    at % 60_000 === 0 || Math.abs(at - now) > 3_600_000 ? {} : { second: '2-digit' as const };
  return `${parts({ weekday: 'short', day: 'numeric', month: 'short', ...year }).replaceAll(',', '')}, ${parts({ hour: '2-digit', minute: '2-digit', hour12: false, ...seconds })}`;
}

/** A day in a zone: "24 Nov 2026". */
export function dayWords(at: number, zone: string): string {
  return new Intl.DateTimeFormat('en-IE', {
    timeZone: zone,
    day: 'numeric',
    month: 'short',
    year: 'numeric',
  }).format(at);
}

/** `yyyy-MM-ddTHH:mm` of an instant in a zone: the value of a date-time control. */
export function localValue(at: number, zone: string): string {
  const p = Object.fromEntries(
    new Intl.DateTimeFormat('en-GB', {
      timeZone: zone,
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      hour12: false,
    })
      .formatToParts(at)
      .map(({ type, value }) => [type, value]),
  );
  return `${p.year}-${p.month}-${p.day}T${p.hour === '24' ? '00' : p.hour}:${p.minute}`;
}

/** "1 entry", "2 entries". */
export function counted(n: number, one: string, many = `${one}s`): string {
  return `${n.toLocaleString('en')} ${n === 1 ? one : many}`;
}

/** The instant of a local time in a zone, the earlier where it comes twice, moved forward where it never comes; null where it is no time. */
export function localToInstant(value: string, zone: string): number | null {
  const wanted = Date.parse(`${value}:00Z`);
  if (Number.isNaN(wanted)) return null;
  let guess = wanted;
  for (let i = 0; i < 2; i++) guess += wanted - Date.parse(`${localValue(guess, zone)}:00Z`);
  const twice = [3_600_000, 1_800_000].find((shift) => localValue(guess - shift, zone) === value);
  return twice === undefined ? guess : guess - twice;
}

/** The instant an address bar names: exact with an offset, local in the zone without; a bare date is that day's start. Null where it is none. */
export function readInstant(text: string, zone: string): number | null {
  if (/(Z|[+-]\d{2}:?\d{2})$/i.test(text) && text.includes('T'))
    return Number.isNaN(Date.parse(text)) ? null : Date.parse(text);
  const local = /^(\d{4}-\d{2}-\d{2})(?:[T ](\d{2}:\d{2}))?/.exec(text);
  return local ? localToInstant(`${local[1]}T${local[2] ?? '00:00'}`, zone) : null;
}

/** Where an entry's screen is; ids may hold "#", "?" or "%". */
export function entryHref(id: string): string {
  return `/build/content/${id.split('/').map(encodeURIComponent).join('/')}`;
}

/** Short words for an instant in a zone: "Tue 24 Nov, 14:05", with the year where it is not this one. */
export function instantWords(at: number, zone: string, now: number): string {
  const parts = (options: Intl.DateTimeFormatOptions, t = at): string => new Intl.DateTimeFormat('en-IE', { timeZone: zone, ...options }).format(t);
  const year = parts({ year: 'numeric' }) === parts({ year: 'numeric' }, now) ? {} : { year: 'numeric' as const };
  const seconds = at % 60_000 === 0 || Math.abs(at - now) > 3_600_000 ? {} : { second: '2-digit' as const };
  return `${parts({ weekday: 'short', day: 'numeric', month: 'short', ...year }).replaceAll(',', '')}, ${parts({ hour: '2-digit', minute: '2-digit', hour12: false, ...seconds })}`;
}

/** A day in a zone: "24 Nov 2026". */
export function dayWords(at: number, zone: string): string {
  return new Intl.DateTimeFormat('en-IE', { timeZone: zone, day: 'numeric', month: 'short', year: 'numeric' }).format(at);
}

/** `yyyy-MM-ddTHH:mm` of an instant in a zone: the value of a date-time control. */
export function localValue(at: number, zone: string): string {
  const p = Object.fromEntries(new Intl.DateTimeFormat('en-GB', { timeZone: zone, year: 'numeric', month: '2-digit', day: '2-digit', hour: '2-digit', minute: '2-digit', hour12: false }).formatToParts(at).map(({ type, value }) => [type, value]));
  return `${p.year}-${p.month}-${p.day}T${p.hour === '24' ? '00' : p.hour}:${p.minute}`;
}

/** "1 entry", "2 entries". */
export function counted(n: number, one: string, many = `${one}s`): string {
  return `${n.toLocaleString('en')} ${n === 1 ? one : many}`;
}

import { type LocalTime, dayParts, localTime } from '../time/zone.ts';

/** The parts of a calendar day, or of an instant in a zone. */
export function dateParts(value: string | number, zone: string): LocalTime {
  return typeof value === 'number' ? localTime(value, zone) : dayParts(value);
}

import { calendarDay } from '../time/zone.ts';
import { plainText } from '../rich-text/index.ts';
import { type DateValue, formatStyled } from './date-format.ts';
import { hasText } from '../text.ts';
import { type Scope, type ValueType, isBlank } from './types.ts';

const numberFormats = new Map<string, Intl.NumberFormat>();

/** A number in the language's form, with a fixed count of decimals where given. */
export function formatNumber(value: number, language: string, decimals?: number): string {
  const key = `${language}/${decimals ?? ''}`;
  let format = numberFormats.get(key);
  if (!format) {
    const options =
      decimals === undefined
        ? { maximumFractionDigits: 15 }
        : { minimumFractionDigits: decimals, maximumFractionDigits: decimals };
    numberFormats.set(
      key,
      (format = new Intl.NumberFormat(language, { numberingSystem: 'latn', ...options })),
    );
  }
  return format.format(value);
}

/** The text of one value, in the scope's form; null where blank. */
export type ToText = (value: unknown, scope: Scope) => string | null;

/**
 * How values of a type become text: chosen once, when a pattern is compiled. Lists are joined by
 * ", ".
 */
export function toText(type: ValueType): ToText {
  if (!type.many && (type.kind === 'text' || type.kind === 'path')) return asItIs;
  const single = singleToText(type);
  if (!type.many) return (value, scope) => (isBlank(value) ? null : single(value, scope));
  return (value, scope) => {
    const texts = (Array.isArray(value) ? value : [value]).flatMap((v) =>
      isBlank(v) ? [] : (single(v, scope) ?? []),
    );
    if (texts.length === 0) return null;
    return scope.address ? texts[0]! : texts.join(', ');
  };
}

function singleToText(type: ValueType): ToText {
  switch (type.kind) {
    case 'number':
      return (v, scope) =>
        scope.address || type.plain ? String(v) : formatNumber(v as number, scope.language);
    case 'yesno':
      return (v, scope) => yesOrNo(scope.address ? '' : scope.language)[v ? 0 : 1];
    case 'date':
      return (v, scope) =>
        scope.address
          ? String(v)
          : formatStyled(v as DateValue, 'medium', scope.language, scope.zone);
    case 'datetime':
      return (v, scope) =>
        scope.address
          ? calendarDay(v as number, scope.zone)
          : formatStyled(v as DateValue, 'medium', scope.language, scope.zone);
    case 'richtext':
      return (v) => blankToNull(plainText(v));
    case 'choice':
      return (v) => blankToNull(type.label?.(String(v)) ?? String(v));
    case 'media':
      return (v) => blankToNull((v as { alt?: string }).alt ?? '');
    case 'object':
      return objectToText(type);
    default:
      return (v) => blankToNull(String(v));
  }
}

const YES_NO: Record<string, readonly [yes: string, no: string]> = { de: ['ja', 'nein'] };

function yesOrNo(language: string): readonly [string, string] {
  return YES_NO[language.split('-')[0]!.toLowerCase()] ?? ['yes', 'no'];
}

function objectToText(type: ValueType): ToText {
  const naming = type.object?.naming;
  const member = naming === undefined ? undefined : type.object!.member(naming);
  if (!member) return () => null;
  let inner: ToText | null = null; // a naming member's type may lead back here, so look it up when first needed
  return (value, scope) => {
    inner ??= toText(member.type());
    return inner(member.read(value, scope), scope);
  };
}

function blankToNull(text: string): string | null {
  return hasText(text) ? text : null;
}

/** Text as it is: the most common case, kept short. */
function asItIs(value: unknown): string | null {
  if (typeof value === 'string') return hasText(value) ? value : null;
  return isBlank(value) ? null : String(value);
}

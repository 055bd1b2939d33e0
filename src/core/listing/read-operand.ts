import { type ConditionSpec, elsewhereOf, literalsOf } from '../design/listing-spec.ts';
import type { Design } from '../design/spec.ts';
import { parseDay, parseInstant, parseRelative } from '../time/parse.ts';
import { type Column, foldText } from './columns.ts';
import { type Bound, type Operand, UNITS, readLength } from './operand.ts';
import { OPERATOR_WORDS } from './operators.ts';

/** What conditions may read of a site, and the zone that its days are of. */
type SiteValues = Pick<Design['site'], 'zone' | 'name' | 'url' | 'strapline'>;

/** Says what is wrong with a value. */
type Fail = (code: string, message: string, fix: string) => null;
type Value = string | number | boolean;

/** What a condition's value stands for; null where it does not fit, which is said. */
export function readOperand(
  column: Column,
  spec: ConditionSpec,
  site: SiteValues,
  fail: Fail,
): Operand | null {
  return new OperandReader(column, spec, site, fail).read();
}

class OperandReader {
  constructor(
    private readonly column: Column,
    private readonly spec: ConditionSpec,
    private readonly site: SiteValues,
    private readonly fail: Fail,
  ) {}

  read(): Operand | null {
    const { column, spec } = this;
    const { op } = spec;
    if (op === 'blank' || op === 'not-blank' || op === 'on-this-day') return this.none();
    const elsewhere = elsewhereOf(spec);
    if (elsewhere) return 'page' in elsewhere ? this.ofPage(elsewhere) : this.ofSite(elsewhere);
    if (KEYED.has(column.family)) return this.keys();
    if (op === 'any-of' || op === 'none-of') return this.several();
    if (op === 'between') return this.between();
    const [single] = Array.isArray(spec.value) ? [] : literalsOf(spec);
    if (single === undefined || single === '') return this.missing('one value');
    if (op === 'within-last' || op === 'within-next') return this.within(String(single));
    if (op === 'this') return this.unit(String(single));
    return this.bound(single);
  }

  private none(): Operand | null {
    if (this.spec.value === undefined) return { kind: 'none' };
    const words = OPERATOR_WORDS[this.spec.op];
    return this.fail('value-not-wanted', `"${words}" takes no value.`, 'Leave the value out.');
  }

  private ofPage({ page }: { page: string }): Operand | null {
    if (!SPANNING.has(this.spec.op)) return { kind: 'page', field: page };
    const words = OPERATOR_WORDS[this.spec.op];
    const message = `"${words}" does not compare with what a page's entry has.`;
    return this.fail('wrong-value', message, 'Give a value, or compare otherwise.');
  }

  private ofSite({ site: key }: { site: string }): Operand | null {
    const { column, site, fail } = this;
    const { name, url, strapline } = site;
    const values = new Map(Object.entries({ name, url, strapline }));
    const value = values.get(key);
    if (value === undefined) return this.wrong(`one of ${[...values.keys()].join(', ')}`, key);
    return new OperandReader(column, { ...this.spec, value }, site, fail).read();
  }

  private missing(wanted: string): null {
    const words = `${this.column.label} ${OPERATOR_WORDS[this.spec.op]}`;
    return this.fail('value-missing', `"${words}" needs ${wanted}.`, GIVE[wanted] ?? GIVE_ONE);
  }

  private listed(): Value[] {
    return literalsOf(this.spec);
  }

  private bound(value: Value): Bound | null {
    switch (this.column.family) {
      case 'text':
        return { kind: 'scalar', value: foldText(String(value)) };
      case 'number':
        return typeof value === 'number' && Number.isFinite(value)
          ? { kind: 'scalar', value }
          : this.wrong('a number', value);
      case 'yesno': {
        const yes = value === 'yes' ? true : value === 'no' ? false : value;
        return typeof yes === 'boolean'
          ? { kind: 'scalar', value: yes }
          : this.wrong('yes or no', value);
      }
      default:
        return this.moment(String(value));
    }
  }

  private moment(text: string): Bound | null {
    const { column } = this;
    const { zone } = this.site;
    const relative = parseRelative(text);
    if (relative && (column.family === 'instant' || 'today' in relative))
      return { kind: 'relative', value: relative };
    const day = parseDay(text.trim());
    if (day !== null) return { kind: 'day', day };
    const instant = column.family === 'instant' && !relative ? parseInstant(text, zone) : null;
    if (instant !== null) return { kind: 'instant', instant };
    return this.wrong(
      column.family === 'instant'
        ? 'a date, a date-time, today ± days or now ± duration'
        : 'a date or today ± days',
      text,
    );
  }

  private several(): Operand | null {
    const given = this.listed();
    if (given.length === 0) return this.missing('something to compare with');
    const bounds = given.map((value) => this.bound(value));
    const values = bounds.map((bound) => bound && 'value' in bound && bound.value);
    return bounds.includes(null) ? null : { kind: 'several', values: values as string[] };
  }

  private between(): Operand | null {
    const given = this.listed();
    if (given.length !== 2) return this.missing('two values');
    const [from, to] = given.map((value) => this.bound(value));
    return from && to ? { kind: 'between', from, to } : null;
  }

  private within(text: string): Operand | null {
    const length = readLength(text);
    if (!length) return this.wrong('a length of time, such as "7 days" or PT36H', text);
    if ('ms' in length && this.column.family !== 'instant')
      return this.wrong('whole days or weeks', text);
    return { kind: 'within', length };
  }

  private unit(text: string): Operand | null {
    const unit = UNITS.find((known) => known === text);
    return unit ? { kind: 'unit', unit } : this.wrong(`one of ${UNITS.join(', ')}`, text);
  }

  private keys(): Operand | null {
    const { column } = this;
    const given = this.listed().map(String);
    if (given.length === 0) return this.missing('something to compare with');
    if (column.family !== 'choice') return { kind: 'keys', keys: given };
    const options = column.field!.options ?? [];
    const ids = given.map((k) => options.find((o) => o.key === k)?.id);
    const unknown = given[ids.indexOf(undefined)];
    if (unknown !== undefined)
      return this.wrong(`one of ${options.map((o) => o.key).join(', ')}`, unknown);
    return { kind: 'keys', keys: ids as string[] };
  }

  private wrong(wanted: string, given: unknown): null {
    const message = `Here stands ${JSON.stringify(given)}, and ${wanted} is wanted.`;
    return this.fail('wrong-value', message, `Write ${wanted}.`);
  }
}

/** Operators that ask of a stretch. */
const SPANNING: ReadonlySet<string> = new Set(['between', 'within-last', 'within-next', 'this']);
/** Families that are compared by keys. */
const KEYED: ReadonlySet<string> = new Set(['choice', 'members', 'identity']);
const GIVE_ONE = 'Give the value to compare with.';
const GIVE: Readonly<Record<string, string>> = {
  'two values': 'Give a list of two: from and to.',
  'something to compare with': 'Give one value or a list.',
};

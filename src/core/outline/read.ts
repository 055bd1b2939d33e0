import { nearest } from '../did-you-mean.ts';
import { MAX_DEPTH } from '../design/kinds/group.ts';
import { kindOf } from '../design/kinds/index.ts';
import type { TextRange } from '../issue.ts';
import { type Said, marksIn, suggested, understood } from './kinds-said.ts';
import {
  capital,
  fieldKeyOf,
  freeKey,
  likeness,
  looksPlural,
  pluralOf,
  typeKeyOf,
} from './names.ts';
import { type Named, type OutlineLine, parseOutline } from './parse.ts';

/** What an outline is read against: a design, or as much of it. */
export interface OutlineWorld {
  site: { language: string };
  types: readonly KnownType[];
  subjectSets: readonly { id: string; key: string; kind: 'tags' | 'tree' }[];
}

/** A type that is there. */
export interface KnownType {
  id: string;
  key: string;
  label: string;
  plural: string;
  address?: string | undefined;
  fields: readonly { id: string; key: string; label: string }[];
}

/** A text that says an outline otherwise, and what pressing it does in a few words. */
export interface Correction {
  words: string;
  text: string;
}

/** Something about a line that may not be meant, or cannot be. */
export interface Finding {
  /** Whether nothing can be made while it stands. */
  isWrong: boolean;
  message: string;
  corrections: Correction[];
}

/** A field as it was understood. */
export interface OutlineField {
  label: string;
  key: string;
  kind: string;
  /** Whether the kind was not said, and goes by the name. */
  isGuessed: boolean;
  many: boolean;
  required: boolean;
  sitsWithin: boolean;
  /** Keys of the types a reference leads to. */
  types: string[];
  options: string[];
  /** The fields of a group. */
  fields: OutlineField[];
  /** Name of the subject set of tags or a category; '' for other kinds. */
  set: string;
  range: TextRange;
  findings: Finding[];
}

/** A type as it was understood. */
export interface OutlineType {
  label: string;
  plural: string;
  key: string;
  /** The type of that name that is there already: only its new fields are made. */
  known: KnownType | null;
  makesPages: boolean;
  /** Whether there is one entry of it and no more. */
  isSingle: boolean;
  fields: OutlineField[];
  /** Names of fields that the type has already. */
  passedOver: string[];
  line: TextRange;
  findings: Finding[];
}

/** Reads an outline against a design: what each line was understood as, and what may be amiss. */
export function readOutline(text: string, design: OutlineWorld): OutlineType[] {
  return new OutlineReader(text, design).types();
}

/** More than these are not read: nobody writes so many at once, and a type holds no more. */
const MOST_TYPES = 200;
const MOST_FIELDS = 300;
const MOST_IN_GROUP = 50;

/** Where a field is read: of which type, how deep in groups, and which keys are taken there. */
interface Place {
  keys: Set<string>;
  /** The name of the field that it says again. */
  there?: string | undefined;
  type: OutlineType;
  depth?: number;
}

class OutlineReader {
  private readonly lines: OutlineLine[];
  private readonly isCut: boolean;
  private readonly language: string;
  /** Keys of the types that are there and that the outline makes, by what names are compared by. */
  private readonly typeKeys = new Map<string, string>();
  /** Types that are there, by what names are compared by. */
  private readonly alike: ReadonlyMap<string, KnownType>;
  /** Types that have had their line. */
  private readonly said = new Set<string>();

  constructor(
    private readonly text: string,
    private readonly design: OutlineWorld,
  ) {
    const lines = parseOutline(text);
    this.lines = lines.slice(0, MOST_TYPES);
    this.isCut = lines.length > MOST_TYPES;
    this.language = design.site.language;
    this.alike = new Map(design.types.map((type) => [this.like(type.label), type]));
  }

  types(): OutlineType[] {
    for (const { key, label, plural } of this.design.types)
      for (const name of [plural, label, key]) this.typeKeys.set(this.like(name), key);
    const taken = new Set(this.design.types.map(({ key }) => key));
    const begun = this.lines.map((line) => this.begin(line, taken));
    begun.forEach((type, i) => this.readFields(type, this.lines[i]!));
    if (this.isCut)
      begun.at(-1)!.findings.push(this.wrong(`One outline has at most ${MOST_TYPES} types.`));
    return begun;
  }

  private like(name: string): string {
    return likeness(name, this.language);
  }

  private begin(line: OutlineLine, taken: Set<string>): OutlineType {
    const known = this.known(line.name);
    const label = known?.label ?? capital(line.name);
    const key = known?.key ?? freeKey(typeKeyOf(label, this.language), taken);
    const isAgain = this.said.has(this.like(label));
    this.said.add(this.like(label));
    const findings = [
      ...(line.name === '' ? [this.wrong('This line has no name before its colon.')] : []),
      ...(isAgain ? [this.wrong(`There is a line for ${label} already.`)] : []),
      ...(known ? [] : this.near(line)),
    ];
    if (!known) {
      taken.add(key);
      for (const name of [pluralOf(label, this.language), label])
        this.typeKeys.set(this.like(name), key);
    }
    const said = line.said.map((words) => words.toLowerCase());
    const plural = line.said.map((words) => /^plural:?\s+(.+)$/i.exec(words)?.[1]).find(Boolean);
    return {
      label,
      plural: known?.plural ?? plural ?? capital(pluralOf(label, this.language)),
      key,
      known,
      makesPages: known
        ? known.address !== undefined
        : !said.some((words) => /^(no pages?|parts?|single|one entry|settings)$/.test(words)),
      isSingle: !known && said.some((words) => /^(single|one entry|settings)$/.test(words)),
      fields: [],
      passedOver: [],
      line: line.line,
      findings,
    };
  }

  /** The type that a name is of, to the letter. */
  private known(name: string): KnownType | null {
    const wanted = name.toLowerCase();
    return (
      this.design.types.find((t) =>
        [t.key, t.label, t.plural].some((own) => own.toLowerCase() === wanted),
      ) ?? null
    );
  }

  /** A type whose name is nearly the same. */
  private near({ name, range, said }: OutlineLine): Finding[] {
    const alike = this.alike.get(this.like(name));
    if (!alike) return [];
    const words = said.length > 0 ? ` (${said.join(', ')})` : '';
    const text = this.withText(range, `${alike.label}${words}`);
    return [
      {
        isWrong: false,
        message: `There is a type ${alike.label}; this makes another.`,
        corrections: [{ words: `Add to ${alike.label}`, text }],
      },
    ];
  }

  private wrong(message: string, corrections: Correction[] = []): Finding {
    return { isWrong: true, message, corrections };
  }

  private withText({ start, end }: TextRange, now: string): string {
    return this.text.slice(0, start) + now + this.text.slice(end);
  }

  private readFields(type: OutlineType, { fields }: OutlineLine): void {
    const names = new Map(
      (type.known?.fields ?? []).flatMap((f) => [
        [this.like(f.label), f.label],
        [this.like(f.key), f.label],
      ]),
    );
    const keys = new Set((type.known?.fields ?? []).map(({ key }) => key));
    if (fields.length > MOST_FIELDS)
      type.findings.push(this.wrong(`A type has at most ${MOST_FIELDS} fields.`));
    for (const field of fields.slice(0, MOST_FIELDS)) {
      const there = names.get(this.like(field.name));
      if (there !== undefined && type.known) type.passedOver.push(there);
      else type.fields.push(this.field(field, { keys, there, type }));
      names.set(this.like(field.name), field.name);
    }
    if (!type.known) this.nameIt(type, keys);
  }

  /** Each type has a text that names its entries: a title goes before where there is none. */
  private nameIt(type: OutlineType, keys: ReadonlySet<string>): void {
    if (type.fields.some(({ kind }) => kind === 'text')) return;
    const title = { name: 'title', said: [], fields: [], range: type.line };
    const named = this.field(title, { keys: new Set(keys), type });
    type.fields.unshift({ ...named, required: true, isGuessed: true });
  }

  private field(named: Named, { keys, there, type, depth = 0 }: Place): OutlineField {
    const said = understood(named.said, (name) => this.typeKeys.has(this.like(name)));
    // One page sits within one other, of its own type where no other is said.
    const sitsWithin = said.sitsWithin && depth === 0 && !type.fields.some((f) => f.sitsWithin);
    if (sitsWithin && said.targets.length === 0) said.targets.push(type.label);
    if (sitsWithin) said.kind = 'reference';
    const own = this.typeKeys.get(this.like(named.name));
    const guess = said.kind ?? (own ? 'reference' : (suggested(named.name)?.kind ?? 'text'));
    const leadsTo = said.kind === null && own ? [named.name] : said.targets;
    const targets = guess === 'reference' ? leadsTo : [];
    const isMany = guess === 'reference' && this.isPlural(targets);
    const key = freeKey(fieldKeyOf(named.name, this.language), keys);
    keys.add(key);
    const types = [...new Set(targets.flatMap((name) => this.typeKeys.get(this.like(name)) ?? []))];
    const isOfSet = guess === 'tags' || guess === 'category';
    const inner = guess === 'group' ? this.innerFields(named, type, depth + 1) : [];
    const isSeveral = guess === 'group' && looksPlural(named.name, this.language);
    return {
      label: capital(named.name),
      key,
      kind: guess,
      isGuessed: said.kind === null,
      many: !sitsWithin && (said.many || guess === 'tags' || isMany || isSeveral),
      required: said.required,
      sitsWithin,
      types,
      options: guess === 'choice' ? said.options : [],
      fields: inner,
      set: isOfSet ? capital(named.name) : '',
      range: named.range,
      findings: [
        ...(there === undefined ? [] : [this.wrong(`${capital(there)} is on this line twice.`)]),
        ...this.kindFindings(named, said, guess, depth),
        ...targets
          .filter((name) => !this.typeKeys.has(this.like(name)))
          .map((name) => this.noSuchType(named, name)),
        ...inner.flatMap(({ findings }) => findings),
      ],
    };
  }

  private innerFields({ fields }: Named, type: OutlineType, depth: number): OutlineField[] {
    const keys = new Set<string>();
    const all = depth > MAX_DEPTH ? [] : fields.slice(0, MOST_IN_GROUP);
    return all.map((field) => this.field(field, { keys, type, depth }));
  }

  private groupFindings(named: Named, depth: number): Finding[] {
    if (depth >= MAX_DEPTH) return [this.wrong(`Groups stand at most ${MAX_DEPTH} deep.`)];
    if (named.fields.length > MOST_IN_GROUP)
      return [this.wrong(`A group has at most ${MOST_IN_GROUP} fields.`)];
    if (named.fields.length > 0) return [];
    const text = this.saying(named, 'group: name');
    return [this.wrong('A group has fields.', [{ words: 'Write one', text }])];
  }

  /** Whether it leads to types by the names that several of them have. */
  private isPlural(targets: readonly string[]): boolean {
    return targets.some((name) => {
      const key = this.typeKeys.get(this.like(name));
      const known = this.design.types.find((t) => t.key === key);
      const plural = known?.plural ?? pluralOf(known?.label ?? this.labelOf(key), this.language);
      return plural.toLowerCase() === name.toLowerCase() && known?.label !== plural;
    });
  }

  private labelOf(key: string | undefined): string {
    const line = this.lines.find(({ name }) => this.typeKeys.get(this.like(name)) === key);
    return line?.name ?? '';
  }

  private kindFindings(named: Named, said: Said, kind: string, depth: number): Finding[] {
    const unknown = said.unknown.map(({ words, near }) =>
      this.wrong(
        `“${words}” is no kind of field${near === undefined ? '' : `; is it “${near}”?`}`,
        near === undefined
          ? [{ words: 'Leave it out', text: this.withText(named.range, named.name) }]
          : [{ words: `Make it ${near}`, text: this.saying(named, near) }],
      ),
    );
    if (kind === 'choice' && said.options.length === 0)
      unknown.push(
        this.wrong('A choice has options.', [
          { words: 'Write two', text: this.saying(named, 'one / another') },
        ]),
      );
    if (kindOf({ kind }).derived)
      unknown.push(
        this.wrong('What a field is computed from is set in Fields, once its type is there.', [
          { words: 'Make it text', text: this.saying(named, 'text') },
        ]),
      );
    return kind === 'group' ? [...unknown, ...this.groupFindings(named, depth)] : unknown;
  }

  /** The text with something else said of a field. */
  private saying({ range }: Named, words: string): string {
    return withKind(this.text, range, words);
  }

  private noSuchType(field: Named, name: string): Finding {
    const text = `${this.text.replace(/\n+$/, '')}\n${capital(name)}: title`;
    const own = this.lines.map((line) => line.name);
    const near = nearest(name, [...own, ...this.design.types.map(({ label }) => label)]);
    const said = this.text.slice(field.range.start, field.range.end);
    const meant = {
      words: `Make it ${near}`,
      text: this.withText(field.range, said.replace(name, near ?? '')),
    };
    return this.wrong(`There is no type ${capital(name)} to lead to.`, [
      ...(near === undefined ? [] : [meant]),
      { words: `Add a line for ${capital(name)}`, text },
    ]);
  }
}

/** The same outline with another kind said of the field in a range; the rest said of it stays. */
export function withKind(text: string, { start, end }: TextRange, words: string): string {
  const [name, ...said] = text.slice(start, end).split('(');
  const marks = marksIn(said.join('('));
  return `${text.slice(0, start)}${name!.trim()} (${[words, ...marks].join(', ')})${text.slice(end)}`;
}

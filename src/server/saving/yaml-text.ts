import { type ScalarTag, type Tags, stringify } from 'yaml';

/** Words that readers of YAML take for something else than a text, in this version or an earlier. */
const READ_OTHERWISE = /^(y|n|yes|no|true|false|on|off|null)$/i;
const PLAIN = /^[A-Za-z/]([A-Za-z0-9 ,.;()'_/+-]*[A-Za-z0-9_/.)])?$/;

/**
 * Texts plain where that is safe, else in double quotes: in ASCII, and each line of the text on a
 * line of its own (YAML 1.2.2, 7.3.1).
 */
const TEXT: ScalarTag = {
  identify: (value) => typeof value === 'string',
  default: true,
  tag: 'tag:yaml.org,2002:str',
  resolve: (text) => text,
  stringify: ({ value }, { indent, implicitKey }) => {
    const text = value as string;
    if (PLAIN.test(text) && !READ_OTHERWISE.test(text)) return text;
    const [first, ...more] = implicitKey
      ? [quoted(text)]
      : quoted(text).split(/(?<=[^\\](?:\\\\)*\\n)/);
    const lines = more.map((line) => line.replace(/^[ \t]/, (space) => `\\${space}`));
    return `"${[first, ...lines].join(`\\\n${indent}`)}"`;
  },
};

function quoted(text: string): string {
  return JSON.stringify(text)
    .slice(1, -1)
    .replace(/[\u{10000}-\u{10ffff}]/gu, (c) => `\\U${hex(c.codePointAt(0)!, 8)}`)
    .replace(/[\u007f-\uffff]/g, (c) => `\\u${hex(c.charCodeAt(0), 4)}`);
}

function hex(code: number, digits: number): string {
  return code.toString(16).padStart(digits, '0');
}

const OPTIONS: Parameters<typeof stringify>[2] & object = {
  customTags: (tags: Tags): Tags => [
    TEXT,
    ...tags.filter((tag) => typeof tag === 'string' || tag.tag !== TEXT.tag),
  ],
  lineWidth: 0,
  aliasDuplicateObjects: false,
};

/** A plain value as YAML, in ASCII; equal values give equal texts. */
export function yamlText(value: unknown): string {
  return stringify(value, OPTIONS);
}

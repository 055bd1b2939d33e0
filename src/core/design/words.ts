/** "sowFrom" → "Sow from". */
export function sentence(text: string): string {
  const words = text
    .replace(/([a-z0-9])([A-Z])/g, '$1 $2')
    .replace(/[_-]+/g, ' ')
    .toLowerCase();
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/**
 * A label within a sentence: "Sow from" → "sow from". Abbreviations stay ("SEO title"), and so do
 * German nouns.
 */
export function withinSentence(label: string, language: string): string {
  const isNoun = /^de\b/i.test(language);
  return isNoun || /^.[\p{Lu}\p{N}]/u.test(label)
    ? label
    : label.charAt(0).toLowerCase() + label.slice(1);
}

/** Puts the focus into a field of the form, by its key, or into the first control in it. */
export function goToField(key: string): void {
  const found = document.getElementById(`field-${key}`);
  const own = found?.matches('input, select, textarea, button, [contenteditable]') ? found : null;
  const target =
    own ?? found?.querySelector<HTMLElement>('input, select, textarea, button') ?? found;
  target?.scrollIntoView({ block: 'center' });
  target?.focus();
}

/** Goes to the field that the address bar names: `#field-KEY`. */
export function goToNamedField(): void {
  const key = /^#field-([\w-]+)$/.exec(location.hash)?.[1];
  if (key !== undefined) goToField(key);
}

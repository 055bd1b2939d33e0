import { expect, test } from 'vitest';
import { designOf, typeOf } from '../../../tests/helpers/design.ts';
import { applyEdit, invertEdit } from './edit.ts';
import { SHARED_SETTINGS, settingStep, settingsOf } from './shared-settings.ts';

const design = designOf({
  types: [typeOf('note'), typeOf('race', [], { seo: { title: '{title}!' }, clash: 'refuse' })],
});
const lines = design.types.map((type) => ({ id: type.id, settings: settingsOf(type) }));

test.each(SHARED_SETTINGS.map((setting) => [setting.property, setting] as const))(
  '%s is set for several types in one edit, and is as before once that is undone',
  (property, { values }) => {
    const wanted = values ? values.map(({ value }) => value) : ['{title} of {site.name}'];
    for (const value of wanted) {
      const steps = lines.flatMap((line) => settingStep(line, property, value) ?? []);
      const applied = applyEdit(design, { steps });
      if (!applied.ok) throw new Error(applied.issues[0]!.message);
      const now = applied.value.design.types.map((type) => settingsOf(type)[property]);
      expect(now).toEqual([value, value]);
      const back = applyEdit(applied.value.design, invertEdit({ steps }));
      expect(back.ok && back.value.design).toEqual(design);
    }
  },
);

test('where it is so already there is nothing to set, and nothing set is what it was', () => {
  expect(settingStep(lines[0]!, 'clash', 'number')).toBe(null);
  const unset = settingStep(lines[1]!, 'seo.title', null)!;
  const applied = applyEdit(design, { steps: [unset] });
  expect(applied.ok && settingsOf(applied.value.design.types[1]!)['seo.title']).toBe(null);
});

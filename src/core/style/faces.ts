/** Families of type that every machine has, each with its CSS. */
export const FACES = {
  plain: { label: 'Plain', css: 'system-ui, "Segoe UI", Roboto, sans-serif' },
  grotesque: { label: 'Grotesque', css: '"Helvetica Neue", "Arial Nova", Arial, sans-serif' },
  humanist: { label: 'Humanist', css: 'Seravek, "Gill Sans Nova", Ubuntu, Calibri, sans-serif' },
  rounded: {
    label: 'Rounded',
    css: 'ui-rounded, "Hiragino Maru Gothic ProN", Quicksand, system-ui, sans-serif',
  },
  bookish: { label: 'Bookish', css: 'Charter, "Bitstream Charter", "Sitka Text", Cambria, serif' },
  oldStyle: {
    label: 'Old style',
    css: '"Iowan Old Style", "Palatino Linotype", "URW Palladio L", P052, serif',
  },
  machine: { label: 'Machine', css: 'ui-monospace, "Cascadia Code", Menlo, Consolas, monospace' },
} as const;

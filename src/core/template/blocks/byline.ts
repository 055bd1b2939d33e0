import { shownAuthor, shownDate } from '../../design/presets.ts';
import { formatStyled } from '../../pattern/date-format.ts';
import { calendarDay, isoInZone } from '../../time/zone.ts';
import { escapeHtml } from '../../text.ts';
import { defineBlock } from '../definition.ts';
import { classes } from '../html.ts';

/** Who wrote an entry and its date, as its type or the entry itself shows them. */
export const byline = defineBlock({
  block: 'byline',
  label: 'Byline',
  doc: 'Who wrote an entry and its date, as its type or the entry itself shows them.',
  spec: {},
  holds: {},
  compile: ({ style }) => {
    const open = `<p${classes('byline', style)}>`;
    return (scope) => {
      if (!scope.own) return '';
      const [author, date] = [shownAuthor(scope.own), shownDate(scope.own)];
      const parts = [
        author ? `<span class="author">${escapeHtml(author)}</span>` : '',
        date === null ? '' : timeElement(date, scope),
      ].filter(Boolean);
      return parts.length === 0 ? '' : `${open}${parts.join(' · ')}</p>`;
    };
  },
  example: {
    block: { block: 'byline' },
    html: '<p class="byline"><span class="author">Ann</span></p>',
  },
});

function timeElement(at: number, { language, zone }: { language: string; zone: string }): string {
  const words = formatStyled(calendarDay(at, zone), 'medium', language, zone);
  return `<time datetime="${escapeHtml(isoInZone(at, zone))}">${escapeHtml(words)}</time>`;
}

import { liveForms } from './live-forms.ts';
import { rowButtons } from './row-buttons.ts';

// What public pages do better with a script. All of them do without.
liveForms();
rowButtons();

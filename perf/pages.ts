// The demo's pages as they are measured, in a program of its own: bundled as the server is, so that
// functions are not named anew at each call, as the loader of TypeScript has them. Prints the rows.
import { demo } from './demo-pages.ts';
import { measureTemplates } from './templates.ts';

process.stdout.write(JSON.stringify(measureTemplates(await demo(process.argv[2]!))));

import { Command, CommanderError } from 'commander';
import { DatabaseProblem } from '@/server/db/problem.ts';
import { loadCommand } from './load.ts';
import { pagesCommand } from './pages.ts';
import { renderCommand } from './render.ts';
import { traceCommand } from './trace.ts';
import { WrongUse, reportIssues } from './output.ts';

/** Exit codes: 0 done, 1 problems found, 2 wrong use. */
async function main(): Promise<number> {
  const program = new Command('bontel')
    .description(
      'Content types bound to addresses, templates, listings and SEO rules, at any instant.',
    )
    .exitOverride();
  program.configureOutput({ writeErr: (text) => process.stderr.write(text) });
  let code = 0;
  for (const add of [loadCommand, pagesCommand, renderCommand, traceCommand])
    add(program, (result) => void (code = result));
  try {
    await program.parseAsync(process.argv);
    return code;
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
    if (error instanceof WrongUse) {
      process.stderr.write(`${error.message}\n`);
      return 2;
    }
    if (error instanceof DatabaseProblem) {
      reportIssues([{ code: 'data', message: error.message, fix: error.fix }]);
      return 1;
    }
    throw error;
  }
}

process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EPIPE') process.exit(0);
  throw error;
});
process.exitCode = await main();

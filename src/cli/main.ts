import { Command, CommanderError } from 'commander';
import { DatabaseProblem } from '@/server/db/problem.ts';
import program from '../../package.json' with { type: 'json' };
import { clockCommand } from './clock.ts';
import { loadCommand } from './load.ts';
import { pagesCommand } from './pages.ts';
import { renderCommand } from './render.ts';
import { saveCommand } from './save.ts';
import { keyCommand } from './key.ts';
import { signInCommand } from './sign-in.ts';
import { traceCommand } from './trace.ts';
import { WrongUse, reportIssues } from './output.ts';
import { WrongSetting } from '@/server/process/settings.ts';

/** Exit codes: 0 done, 1 problems found, 2 wrong use. */
async function main(): Promise<number> {
  const command = new Command('bontel')
    .description(
      'Content types bound to addresses, templates, listings and SEO rules, at any instant.',
    )
    .version(program.version)
    .exitOverride();
  command.configureOutput({ writeErr: (text) => process.stderr.write(text) });
  let code = 0;
  for (const add of [
    loadCommand,
    saveCommand,
    pagesCommand,
    renderCommand,
    traceCommand,
    signInCommand,
    keyCommand,
    clockCommand,
  ])
    add(command, (result) => void (code = result));
  try {
    await command.parseAsync(process.argv);
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
    if (error instanceof WrongSetting) {
      reportIssues([{ code: 'setting', message: error.message, fix: error.fix }]);
      return 2;
    }
    throw error;
  }
}

process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EPIPE') process.exit(0);
  throw error;
});
process.exitCode = await main();

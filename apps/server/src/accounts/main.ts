import { stat } from 'node:fs/promises';
import { join } from 'node:path';
import { readConfig } from '../config.js';
import { DATABASE_FILE, openDatabase } from '../database/index.js';
import { StartError } from '../problems/start-error.js';
import { Accounts } from './service.js';

/* npm run account -- reset E-MAIL: for a tutor who can't get at their mail. It works while the server is running. */

async function run([what, email]: readonly string[]): Promise<void> {
  const { dataFolder, address } = readConfig(process.env, null);
  if (what !== 'reset' || !email) throw new StartError('Usage: npm run account -- reset E-MAIL');
  if (!(await stat(join(dataFolder, DATABASE_FILE)).catch(() => null)))
    throw new StartError(
      `There is no database in ${dataFolder}. Name the folder with CUADERNO_DATA.`,
    );
  const db = await openDatabase(dataFolder);
  try {
    const asked = await new Accounts(db).askReset(email);
    if (!asked) throw new StartError(`Nobody has an account with the e-mail ${email}.`);
    process.stdout.write(
      [
        `A new password for ${asked.tutor.name} can be chosen here, once, within an hour:`,
        `${address ?? ''}/reset/${asked.token}`,
        '',
      ].join('\n'),
    );
  } finally {
    await db.close();
  }
}

run(process.argv.slice(2)).catch((error: unknown) => {
  const known = error instanceof StartError;
  process.stderr.write(`${known ? error.message : (error as Error).stack}\n`);
  process.exitCode = 1;
});

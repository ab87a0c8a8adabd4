import { parseArgs } from 'node:util';
import { Client, Ended, EXIT } from './client.ts';
import { exportTape, load, match, tally, type Options, type Said } from './commands.ts';

const USAGE = `just-tally COMMAND ARGUMENT [options]

  tally TAPE      how many pass a tape, line by line
  export TAPE     writes what a tape keeps into a file
  match FILE      lines a file of companies up with the universe
  load FILE       loads a file as a source

TAPE is a tape file, an exported file, the name of a saved tape, or typed lines parted by ";".

  --server URL    the running program (http://127.0.0.1:4600)
  --json          the answer as JSON on standard output
  --quiet         no progress on standard error
  --subject S     what a typed tape counts, or what a file holds (companies)
  --format F      xlsx, csv, ods, merge, jsonl, parquet, sqlite, geojson, vcard, pdf, dossiers, labels or letters (csv)
  --columns A,B   fields of the file; those of the sheet where left out
  --out FILE      where the file goes; its own name here where left out
  --name NAME     of the export, source or match
  --for WHOM      whom the export is for, as the ledger keeps it
  --currency C    of amounts (EUR)
  --as-of DAY     of the file that is loaded (today)
  --apart         what surely is a company of another source stays beside it

Ends with 0 done, 1 refused, 2 not understood, 3 nothing answers, 4 failed or cancelled.`;

const COMMANDS: Readonly<
  Record<string, (client: Client, argument: string, options: Options) => Promise<Said>>
> = {
  tally,
  export: exportTape,
  match,
  load,
};

/** Runs one command and returns its exit code; answers go to `out`, everything else to `err`. */
export async function run(
  args: readonly string[],
  out: (text: string) => void,
  err: (text: string) => void,
): Promise<number> {
  try {
    const { values, positionals } = parseArgs({
      args: [...args],
      allowPositionals: true,
      options: {
        server: { type: 'string', default: 'http://127.0.0.1:4600' },
        json: { type: 'boolean', default: false },
        quiet: { type: 'boolean', default: false },
        help: { type: 'boolean', short: 'h', default: false },
        subject: { type: 'string', default: 'companies' },
        format: { type: 'string', default: 'csv' },
        columns: { type: 'string' },
        out: { type: 'string' },
        name: { type: 'string' },
        for: { type: 'string' },
        currency: { type: 'string', default: 'EUR' },
        'as-of': { type: 'string' },
        apart: { type: 'boolean', default: false },
      },
    });
    if (values.help) {
      out(USAGE);
      return EXIT.done;
    }
    const [name = '', argument, ...more] = positionals;
    const command = COMMANDS[name];
    if (!command || argument === undefined || more.length)
      throw new Ended(
        EXIT.usage,
        `${command || name === '' ? '' : `There is no command “${name}”.\n\n`}${USAGE}`,
      );
    const client = new Client(values.server, values.quiet ? () => {} : err);
    const said = await command(client, argument, values);
    out(values.json ? JSON.stringify(said.json) : said.lines.join('\n'));
    return EXIT.done;
  } catch (error) {
    if (error instanceof Ended) {
      err(error.message);
      return error.code;
    }
    const { code, message } = error as NodeJS.ErrnoException;
    err(message);
    return code?.startsWith('ERR_PARSE_ARGS') ? EXIT.usage : EXIT.failed;
  }
}

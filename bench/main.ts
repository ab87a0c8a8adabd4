import { cpus, totalmem } from 'node:os';
import { parseArgs } from 'node:util';
import { compare } from './compare.ts';
import { megabytes } from './figures.ts';

const { values } = parseArgs({
  options: {
    data: { type: 'string' },
    tapes: { type: 'string', default: '200' },
    'sqlite-every': { type: 'string', default: '4' },
  },
});
console.log(
  `${cpus().length} cores (${cpus()[0]?.model}), ${megabytes(totalmem())} of memory, Node ${process.version}\n`,
);
await compare(values.data!, Number(values.tapes), Number(values['sqlite-every']));

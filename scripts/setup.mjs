import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';

/** Set-up that the commands share: each step is skipped where it is done already. */

export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { stdio: 'inherit', ...options });
  if (error) throw error;
  return status ?? 1;
}

/** Runs a program until it ends; a signal to stop goes on to it, and its code becomes ours. `onOutput` sees what it says. */
export function serve(args, onOutput = () => {}) {
  const server = spawn('node', ['--enable-source-maps', ...args], {
    stdio: ['inherit', 'pipe', 'inherit'],
    env: { ...process.env, NODE_ENV: 'production' },
  });
  server.stdout.on('data', (chunk) => {
    process.stdout.write(chunk);
    onOutput(String(chunk));
  });
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
  server.on('exit', (code) => process.exit(code ?? 1));
}

function need(command, args, what) {
  if (run(command, args) === 0) return;
  console.error(`${what} failed; see above.`);
  process.exit(1);
}

const has = (program) => spawnSync('sh', ['-c', `command -v ${program}`]).status === 0;

function aptInstall(packages, why) {
  if (!has('apt-get') || process.getuid?.() !== 0) {
    console.error(`${why} Install these Debian packages and start again: ${packages.join(' ')}`);
    process.exit(1);
  }
  console.log(`Installing ${packages.join(', ')} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  run('apt-get', ['update', '-qq'], { env });
  if (
    run('apt-get', ['install', '-y', '-qq', ...packages], { env, stdio: ['ignore', 'ignore', 'inherit'] }) !==
    0
  )
    process.exit(1);
}

/** The packages of package-lock.json; a compiler first, since better-sqlite3 compiles. */
export function ensurePackages() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    console.error(`Just Tally needs Node 20.19 or newer; this is ${process.version}.`);
    process.exit(1);
  }
  const marker = join('node_modules', '.package-lock.json');
  if (existsSync(marker) && statSync(marker).mtimeMs >= statSync('package-lock.json').mtimeMs) return;
  if (!existsSync(join('node_modules', 'better-sqlite3', 'build', 'Release', 'better_sqlite3.node'))) {
    const missing = [
      ['make', 'make'],
      ['g++', 'g++'],
      ['python3', 'python3'],
    ]
      .filter(([program]) => !has(program))
      .map(([, name]) => name);
    if (missing.length) aptInstall(missing, 'A compiler is needed once.');
  }
  console.log('Installing packages (the database driver is compiled, which takes a few minutes) …');
  need('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], 'npm ci');
}

export function ensureChromium() {
  if (!existsSync('/usr/bin/chromium')) aptInstall(['chromium'], 'The interface tests drive Chromium.');
}

export function ensurePdfText() {
  if (!has('pdftotext')) aptInstall(['poppler-utils'], 'The tests read papers back with pdftotext.');
}

/** Programs that exported files are opened with. */
export function ensureReaders() {
  const missing = [
    ...(has('soffice') ? [] : ['libreoffice-calc']),
    ...(spawnSync('/usr/bin/python3', ['-c', 'import openpyxl']).status === 0 ? [] : ['python3-openpyxl']),
    ...(has('sqlite3') ? [] : ['sqlite3']),
    ...(has('Rscript') ? [] : ['r-base-core']),
  ];
  if (missing.length) aptInstall(missing, 'The tests open exported files with other programs.');
}

export function ensureSqliteShell() {
  if (!has('sqlite3')) aptInstall(['sqlite3'], 'The bench compares loading with the sqlite3 shell.');
}

/** Builds server and interface where the build is missing or older than a source. */
export function ensureBuild() {
  const built = join('dist', 'web', 'index.html');
  if (existsSync(built)) {
    const at = statSync(built).mtimeMs;
    const newest = Math.max(
      ...[
        'core',
        'contract',
        'server',
        'web',
        'cli',
        'demo',
        'bench',
        'package-lock.json',
        'vite.config.ts',
        'scripts/build.mjs',
        'scripts/build-server.mjs',
      ].map(newestUnder),
    );
    if (newest <= at) return;
  }
  console.log('Building …');
  need('node', ['scripts/build.mjs'], 'The build');
}

function newestUnder(path) {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  return Math.max(0, ...readdirSync(path).map((name) => newestUnder(join(path, name))));
}

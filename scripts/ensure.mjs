// Makes a fresh machine ready, part by part as it is named: `packages`, `database` (its addon, once the packages are
// there) and `browser` (a Chromium for the tests, and programs that read pictures back). Plain Node, nothing installed.
import { spawn, spawnSync } from 'node:child_process';
import { copyFileSync, existsSync, mkdirSync, readFileSync, renameSync, statSync } from 'node:fs';
import { homedir } from 'node:os';
import { dirname, join } from 'node:path';
import { findChromium } from './chromium.mjs';

const [major] = process.versions.node.split('.').map(Number);
if (major < 20) {
  console.error(`Sundew needs Node 20 or later; this is ${process.version}.`);
  process.exit(1);
}

/** Runs a command to its end. */
function run(command, args, env = process.env) {
  console.log(`> ${command} ${args.join(' ')}`);
  return new Promise((resolve) => {
    spawn(command, args, { stdio: 'inherit', env })
      .on('error', ({ message }) => stop(`${command} could not be started: ${message}`))
      .on('close', (status) => (status === 0 ? resolve() : stop(`${command} failed.`, status ?? 1)));
  });
}

function stop(message, status = 1) {
  console.error(message);
  process.exit(status);
}

async function packages() {
  const installed = 'node_modules/.package-lock.json';
  if (existsSync(installed) && changed(installed) >= changed('package-lock.json')) return;
  // What is set for production elsewhere must not keep the tools of the build away.
  const env = { ...process.env };
  for (const name of ['NODE_ENV', 'npm_config_omit', 'npm_config_production']) delete env[name];
  await run('npm', ['ci', '--include=dev', '--ignore-scripts'], env);
}

/** Where the database's addon lies, and where one that was compiled is kept for the next time: for one version, Node and machine. */
const ADDON = 'node_modules/better-sqlite3/build/Release/better_sqlite3.node';
function keptAddon() {
  const { version } = JSON.parse(readFileSync('node_modules/better-sqlite3/package.json', 'utf8'));
  const cache = process.env.XDG_CACHE_HOME || join(homedir(), '.cache');
  const name = ['better_sqlite3', version, process.versions.modules, process.platform, process.arch].join(
    '-',
  );
  return join(cache, 'sundew', `${name}.node`);
}

/** Whether the addon loads and works here. */
const works = () =>
  spawnSync('node', ['-e', "new (require('better-sqlite3'))(':memory:').exec('select 1')"]).status === 0;

/** Compiling the database's addon takes a minute or two: it is done once, and found again. */
async function database() {
  if (works()) return;
  const kept = keptAddon();
  if (existsSync(kept)) {
    mkdirSync(dirname(ADDON), { recursive: true });
    copyFileSync(kept, ADDON);
    if (works()) return;
  }
  // Plainly compiled it takes half the time, and answers no slower here.
  const plain = { CFLAGS: '-O1', CXXFLAGS: '-O1', ...process.env };
  await run('npm', ['rebuild', 'better-sqlite3'], plain);
  try {
    mkdirSync(dirname(kept), { recursive: true });
    copyFileSync(ADDON, `${kept}.new`);
    renameSync(`${kept}.new`, kept);
  } catch ({ message }) {
    console.error(`The compiled database could not be kept for the next time: ${message}`);
  }
}

/** Programs that the tests read pictures back with, and the packages that hold them. */
const READERS = {
  exiftool: 'libimage-exiftool-perl',
  exrheader: 'openexr',
  'convert-im6.q16': 'imagemagick',
};

const isMissing = (program) => spawnSync('which', [program]).status !== 0;

async function browser() {
  const wanted = Object.keys(READERS)
    .filter(isMissing)
    .map((program) => READERS[program]);
  if (!findChromium()) wanted.push('chromium-headless-shell');
  if (wanted.length === 0) return;
  if (!existsSync('/usr/bin/apt-get')) {
    if (findChromium())
      return console.error(`The tests of written files are left out without: ${wanted.join(', ')}.`);
    stop('The tests need Chromium. Install it and name its path in CHROMIUM.');
  }
  await run('apt-get', ['update', '-qq']);
  await run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...wanted]);
}

const changed = (file) => statSync(file).mtimeMs;
const parts = new Set(process.argv.slice(2));
await Promise.all([parts.has('packages') && packages(), parts.has('browser') && browser()]);
if (parts.has('database')) await database();

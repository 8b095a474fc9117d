// Makes a fresh machine ready: packages, and with --browser a Chromium for the tests. Plain Node, nothing installed.
import { spawn } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';

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
  await run('npm', ['ci', '--include=dev'], env);
}

async function browser() {
  const chromium = process.env.CHROMIUM ?? '/usr/bin/chromium';
  if (existsSync(chromium)) return;
  if (!existsSync('/usr/bin/apt-get'))
    stop('The tests need Chromium. Install it and name its path in CHROMIUM.');
  await run('apt-get', ['update', '-qq']);
  await run('apt-get', ['install', '-y', '-qq', 'chromium']);
}

const changed = (file) => statSync(file).mtimeMs;
await Promise.all([packages(), process.argv.includes('--browser') && browser()]);

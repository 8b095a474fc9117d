// Makes a fresh machine ready: packages, and with --browser a Chromium for the tests. Plain Node, nothing installed.
import { spawnSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';

const [major] = process.versions.node.split('.').map(Number);
if (major < 20) {
  console.error(`Sundew needs Node 20 or later; this is ${process.version}.`);
  process.exit(1);
}

function run(command, args, env = process.env) {
  console.log(`> ${command} ${args.join(' ')}`);
  const { status } = spawnSync(command, args, { stdio: 'inherit', env });
  if (status !== 0) {
    console.error(`${command} failed.`);
    process.exit(status ?? 1);
  }
}

const changed = (file) => statSync(file).mtimeMs;
const installed = 'node_modules/.package-lock.json';
if (!existsSync(installed) || changed(installed) < changed('package-lock.json')) {
  // What is set for production elsewhere must not keep the tools of the build away.
  const env = { ...process.env };
  for (const name of ['NODE_ENV', 'npm_config_omit', 'npm_config_production']) delete env[name];
  run('npm', ['ci', '--include=dev'], env);
}

const chromium = process.env.CHROMIUM ?? '/usr/bin/chromium';
if (process.argv.includes('--browser') && !existsSync(chromium)) {
  if (!existsSync('/usr/bin/apt-get')) {
    console.error(`The tests need Chromium. Install it and name its path in CHROMIUM.`);
    process.exit(1);
  }
  run('apt-get', ['update', '-qq']);
  run('apt-get', ['install', '-y', '-qq', 'chromium']);
}

/** What the set-up, start and test scripts share. */
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
process.chdir(root);
process.env.NEXT_TELEMETRY_DISABLED = '1';

export const say = (text) => console.log(`knot-path: ${text}`);

export function stop(text) {
  console.error(`knot-path: ${text}`);
  process.exit(1);
}

/** Runs a command to its end with our terminal; stops everything where it fails. */
export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { stdio: 'inherit', ...options });
  if (error) stop(`${command} could not be run: ${error.message}`);
  if (status !== 0) process.exit(status ?? 1);
}

/** Runs a long-lived command in our place: its end is ours, our signals are its. */
export function become(command, args, options = {}) {
  const child = spawn(command, args, { stdio: 'inherit', ...options });
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => child.kill(signal));
  child.on('error', (error) => stop(error.message));
  child.on('exit', (code, signal) => process.exit(code ?? (signal ? 0 : 1)));
}

export const bin = (name) => path.join(root, 'node_modules', '.bin', name);

const fileHash = (files) => {
  const hash = createHash('sha256').update(process.version);
  for (const file of files) hash.update(file).update('\0').update(readFileSync(file)).update('\0');
  return hash.digest('hex');
};

function filesUnder(place) {
  if (!existsSync(place)) return [];
  if (statSync(place).isFile()) return [place];
  return readdirSync(place, { withFileTypes: true })
    .flatMap((entry) => filesUnder(path.join(place, entry.name)))
    .sort();
}

/** Does `work` unless what it was last done from, the files under `places`, is unchanged and `result` is there. */
export async function unlessFresh(stamp, places, result, work) {
  const wanted = fileHash(places.flatMap(filesUnder));
  const fresh = existsSync(result) && existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted;
  if (fresh) return;
  await work();
  mkdirSync(path.dirname(stamp), { recursive: true });
  writeFileSync(stamp, wanted);
}

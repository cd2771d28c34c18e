/** What the set-up, start and test scripts share. */
import { spawnSync } from 'node:child_process';
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

export const bin = (name) => path.join(root, 'node_modules', '.bin', name);

/** One hash over Node's version and what `tell` says of each file. */
function hashOf(files, tell) {
  const hash = createHash('sha256').update(process.version);
  for (const file of files) hash.update(file).update('\0').update(tell(file)).update('\0');
  return hash.digest('hex');
}

const sizeAndTime = (file) => {
  const { size, mtimeMs } = statSync(file);
  return `${size} ${mtimeMs}`;
};

function filesUnder(place) {
  if (!existsSync(place)) return [];
  if (statSync(place).isFile()) return [place];
  return readdirSync(place, { withFileTypes: true })
    .flatMap((entry) => filesUnder(path.join(place, entry.name)))
    .sort();
}

/**
 * Does `work` unless what it was last done from, the files under `places`, is unchanged and `result` is there. The files
 * are read only where one has another size or time than when we last looked.
 */
export async function unlessFresh(stamp, places, result, work) {
  const files = places.flatMap(filesUnder);
  const looks = hashOf(files, sizeAndTime);
  const seen = `${stamp}-seen`;
  const says = (file, text) => existsSync(file) && readFileSync(file, 'utf8') === text;
  const there = existsSync(result) && existsSync(stamp);
  if (there && says(seen, looks)) return;
  const wanted = hashOf(files, (file) => readFileSync(file));
  if (!there || !says(stamp, wanted)) {
    await work();
    mkdirSync(path.dirname(stamp), { recursive: true });
    writeFileSync(stamp, wanted);
  }
  writeFileSync(seen, looks);
}

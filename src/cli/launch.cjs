#!/usr/bin/env node
/**
 * Starts the command line from its code as it was compiled when it was built: compiling is most of what a short command
 * takes. Compiled code that this Node cannot use is left aside, as is one that is missing.
 */
const { existsSync, readFileSync, writeFileSync } = require('node:fs');
const { wrap } = require('node:module');
const path = require('node:path');
const { Script } = require('node:vm');

const file = path.join(__dirname, 'main.cjs');
const compiled = path.join(__dirname, 'main.compiled');
const script = new Script(wrap(readFileSync(file, 'utf8')), {
  filename: file,
  cachedData: existsSync(compiled) ? readFileSync(compiled) : undefined,
});
// When it is built: keeps what one command has had compiled.
if (process.env.KNOT_PATH_COMPILE) process.on('exit', () => writeFileSync(compiled, script.createCachedData()));
script.runInThisContext().call(module.exports, module.exports, require, module, file, __dirname);

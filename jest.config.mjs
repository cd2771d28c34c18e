import nextJest from 'next/jest.js';

const withNext = nextJest({ dir: './' });
/**
 * Handed to each module as parameters: looked up in Jest's own world instead, they cost a quarter of all the tests' time.
 * None that fake timers replace.
 */
const sandboxInjectedGlobals = [
  'Array',
  'BigInt',
  'Error',
  'Infinity',
  'JSON',
  'Map',
  'Math',
  'Number',
  'Object',
  'Promise',
  'Set',
  'String',
  'Symbol',
  'WeakMap',
  'Float64Array',
  'Int8Array',
  'Int32Array',
  'Uint8Array',
  'Uint16Array',
  'Uint32Array',
];
const project = (displayName, testMatch, testEnvironment, more = {}) =>
  withNext({ displayName, testMatch, testEnvironment, sandboxInjectedGlobals, ...more })();

/** next/jest has to be awaited for each project. */
export default async function config() {
  return {
    // Jest leaves one core to others; nobody else works here meanwhile.
    maxWorkers: '100%',
    // No test takes two seconds by itself; a machine that does other things as well may take ten times as long.
    testTimeout: 60_000,
    projects: [
      await project('core', ['<rootDir>/src/core/**/*.test.ts'], 'node'),
      await project(
        'server',
        [
          '<rootDir>/src/server/**/*.test.ts',
          '<rootDir>/src/cli/**/*.test.ts',
          '<rootDir>/src/snmp/**/*.test.ts',
          '<rootDir>/src/contract/**/*.test.ts',
          '<rootDir>/src/workers/**/*.test.ts',
          '<rootDir>/src/*.test.ts',
        ],
        'node',
      ),
      await project('workbench', ['<rootDir>/src/workbench/**/*.test.{ts,tsx}'], 'jsdom', {
        setupFilesAfterEnv: ['<rootDir>/jest.workbench.ts'],
      }),
    ],
  };
}

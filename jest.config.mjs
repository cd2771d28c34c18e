import nextJest from 'next/jest.js';

const withNext = nextJest({ dir: './' });
const project = (displayName, testMatch, testEnvironment, more = {}) =>
  withNext({ displayName, testMatch, testEnvironment, ...more })();

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

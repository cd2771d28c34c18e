/** Jest for `npm run mutate`: the core's own tests that are quick, since each of them runs once for every mutation. */
import nextJest from 'next/jest.js';

export default nextJest({ dir: './' })({
  rootDir: process.cwd(),
  testEnvironment: 'node',
  testMatch: [
    '<rootDir>/src/core/base/**/*.test.ts',
    '<rootDir>/src/core/model/**/*.test.ts',
    '<rootDir>/src/core/edit/edit.test.ts',
    '<rootDir>/src/core/topology/**/*.test.ts',
    '<rootDir>/src/core/tree/**/*.test.ts',
  ],
  bail: true,
});

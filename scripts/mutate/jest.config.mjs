/** Jest for `npm run mutate`: the modules' own tests alone, since each of them runs once for every mutation. */
import nextJest from 'next/jest.js';

export default nextJest({ dir: './' })({
  rootDir: process.cwd(),
  testEnvironment: 'node',
  testMatch: ['model/vlanSet', 'topology/bridgeId', 'topology/pathCost', 'topology/region', 'topology/lag/hash'].map(
    (name) => `<rootDir>/src/core/${name}.test.ts`,
  ),
  bail: true,
});

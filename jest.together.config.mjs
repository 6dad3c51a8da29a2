import config from './jest.config.mjs';

/**
 * The same tests, with modules and content loaded once for a whole project instead of anew for each file, which
 * is a third of the time of all. `npm test` uses it; single files are run by `npx jest`.
 */
export default {
  ...config,
  projects: config.projects.map((project) => ({
    ...project,
    testMatch: ['<rootDir>/scripts/lib/together.cjs'],
  })),
};

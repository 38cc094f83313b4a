/** Unit tests of the core, the database and the pure parts of the application; the interface is tested in e2e/. */
export default {
  testEnvironment: 'node',
  // Looked up in every module's scope instead of the sandbox, where each look costs; a third of the time of the core's tests. Not `Set`: a package
  // has a class of that name. Nothing that tests put in another's place.
  sandboxInjectedGlobals: ['Math', 'Map', 'Array', 'Object', 'Number', 'String', 'JSON', 'Error', 'Symbol'],
  // `npm test` also tells V8 to compile for speed only what has run 400000 bytes of its code (67584 by itself): every file's modules are read anew, and compiling
  // was two fifths of the work. Measured: a sixth less; 250000 and 1000000 save less.
  // Some tests wait for real time; two workers leave a core idle while they do.
  maxWorkers: 3,
  roots: [
    '<rootDir>/core',
    '<rootDir>/paper',
    '<rootDir>/app',
    '<rootDir>/db',
    '<rootDir>/server',
    '<rootDir>/workers',
  ],
  testMatch: ['**/*.test.{ts,tsx}'],
  // Routes are tested without workers, which are built files; the pool itself has its own test.
  moduleNameMapper: { '^(?:\\.\\./)+services/workers/pool\\.server$': '<rootDir>/workers/server/atOnce.ts' },
  // Only what hangs is ended: a machine that does other things too is no fault. Speed is measured in benchmarks.
  testTimeout: 60_000,
  // A package that ships as modules of the language only.
  transformIgnorePatterns: ['/node_modules/(?!(jsondiffpatch|@dmsnell)/)'],
  transform: {
    '^.+\\.(tsx?|js)$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' } },
        },
        module: { type: 'commonjs' },
      },
    ],
  },
}

// Prints "passed failed" from a report of Jest or Playwright; fails when nothing ran.
import { readFileSync } from 'node:fs'

const report = JSON.parse(readFileSync(process.argv[2], 'utf8'))
const [passed, failed] = report.stats
  ? [report.stats.expected, report.stats.unexpected + report.stats.flaky]
  : [report.numPassedTests, report.numFailedTests + report.numRuntimeErrorTestSuites]
if (passed + failed === 0) process.exit(1)
console.log(passed, failed)

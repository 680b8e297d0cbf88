// Prints “passed failed” from the JSON report of Vitest or Playwright.
import { readFileSync } from 'node:fs'

const report = JSON.parse(readFileSync(process.argv[2], 'utf8'))
if (report.stats) {
  const { expected, unexpected, flaky } = report.stats
  console.log(expected + flaky, unexpected + (report.errors?.length ?? 0))
} else {
  const brokenFiles = report.testResults.filter(
    (f) => f.status === 'failed' && f.assertionResults.length === 0,
  ).length
  console.log(report.numPassedTests, report.numFailedTests + brokenFiles)
}

// Prints failures as they come and writes "passed failed" for the caller.
const { writeFileSync } = require('node:fs');
const { reporters } = require('mocha');

module.exports = class Count extends reporters.Base {
  constructor(runner, options) {
    super(runner, options);
    let passed = 0;
    let failed = 0;
    runner.on('pass', () => passed++);
    runner.on('fail', (test, error) => {
      failed++;
      console.log(`not ok  ${test.fullTitle()}\n${error.stack ?? error}`);
    });
    runner.on('pending', (test) => {
      failed++;
      console.log(`not ok  ${test.fullTitle()}: skipped`);
    });
    runner.on('end', () => writeFileSync(options.reporterOptions.counts, `${passed} ${failed}`));
  }
};

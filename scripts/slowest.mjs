// Says at the end which ten tests took longest, so that it is seen where the time goes.
const SHOWN = 10;

export default class Slowest {
  onRunComplete(_contexts, results) {
    const tests = results.testResults.flatMap((file) =>
      file.testResults.map((t) => ({ ms: t.duration ?? 0, name: t.fullName, file: file.testFilePath })),
    );
    if (tests.length < 50) return;
    const slowest = tests.sort((a, b) => b.ms - a.ms).slice(0, SHOWN);
    const lines = slowest.map((t) => `  ${(t.ms / 1000).toFixed(1).padStart(6)} s  ${t.name.slice(0, 110)}`);
    process.stderr.write(`\nThe slowest ${SHOWN} tests:\n${lines.join("\n")}\n`);
  }
}

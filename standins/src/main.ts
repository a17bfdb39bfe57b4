// Starts the stand-ins: their page at PORT, the instruments at the ports after it. A scenario's file may be given.
import { readFileSync } from 'node:fs';
import { readScenario } from './bench/index.ts';
import { control, scenarios } from './control.ts';
import { House, instrumentNames } from './house.ts';

const [portText = '4200', file] = process.argv.slice(2);
const port = Number(portText);
const given: unknown = file ? JSON.parse(readFileSync(file, 'utf8')) : Object.values(scenarios())[0];
try {
  const house = new House(await readScenario(given));
  await house.open(port + 1);
  const page = control(house);
  page.listen(port, '127.0.0.1', () =>
    console.log(`Stand-ins: http://127.0.0.1:${port}/, instruments at ${port + 1} to ${port + instrumentNames.length}`),
  );
  const end = () => {
    page.closeAllConnections();
    page.close();
    void house.close().then(() => process.exit(0));
  };
  process.once('SIGTERM', end);
  process.once('SIGINT', end);
} catch (cause) {
  console.error(`stand-ins: ${(cause as Error).message}`);
  process.exit(1);
}

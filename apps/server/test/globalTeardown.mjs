import { rmSync } from 'node:fs';

export default async function teardown() {
  const { database, folder } = globalThis.heathstepTest;
  await database.stop();
  rmSync(folder, { recursive: true, force: true });
}

import { execFileSync } from 'node:child_process';
import { join } from 'node:path';

describe('an archive of what was written', () => {
  it('brings the database back to the moment before a mistake', () => {
    const script = join(__dirname, '..', '..', '..', 'scripts', 'pointInTime.mjs');
    const said = execFileSync(process.execPath, [script], { encoding: 'utf8' });
    expect(JSON.parse(said.trim().split('\n').at(-1) ?? '')).toEqual(['before the copy', 'after the copy']);
  }, 120_000);
});

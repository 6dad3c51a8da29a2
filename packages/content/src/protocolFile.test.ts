import { type ProtocolFile, writeProtocol } from '@heathstep/core';
import { checkProtocolFile, loadContent, ownProtocolKey } from './index.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;
const KEY = 'lateral-ankle-sprain';

function fileOf(key: string): ProtocolFile {
  const protocol = content.protocols.find((p) => p.key === key);
  if (protocol === undefined) throw new Error(key);
  return JSON.parse(JSON.stringify(writeProtocol(protocol))) as ProtocolFile;
}
type Loose = Record<string, never> & { stages: Record<string, never>[] };
/** A file with something changed in place. */
const changed = (change: (protocol: Loose) => void, key = KEY): unknown => {
  const file = fileOf(key);
  change(file.protocol as unknown as Loose);
  return file;
};
const problems = (file: unknown) => {
  const result = checkProtocolFile(file, { replaces: KEY, version: 4 }, content);
  return result.ok ? [] : result.problems.map((p) => `${p.pointer}: ${p.detail}`);
};

describe('a protocol as a file', () => {
  it.each(content.protocols.map((p) => [p.key, p] as const))(
    '%s is exported, and read back is the same protocol under the clinic’s key',
    (key, shipped) => {
      expect(checkProtocolFile(fileOf(key), { replaces: key, version: 3 }, content)).toEqual({
        ok: true,
        protocol: { ...shipped, key: ownProtocolKey(key), version: 3 },
      });
    },
  );

  it('takes the key, version and conditions it is given, whatever the file says', () => {
    const file = changed((p) => Object.assign(p, { key: 'mine', version: 77, conditions: ['bunion'] }));
    const read = checkProtocolFile(file, { replaces: KEY, version: 4 }, content);
    expect(read.ok && read.protocol).toMatchObject({
      key: `clinic-${KEY}`,
      version: 4,
      conditions: content.protocols.find((p) => p.key === KEY)?.conditions,
    });
  });

  it.each([
    ['no file at all', 'text', ['']],
    ['another format', { ...fileOf(KEY), format: 'something' }, ['/format']],
    ['a field unknown', changed((p) => Object.assign(p, { colour: 'red' })), ['/protocol']],
    ['a name left out', changed((p) => delete (p as { name?: unknown }).name), ['/protocol']],
    [
      'an exercise that is none',
      changed((p) =>
        Object.assign((p.stages[0]?.['slots'] as unknown as object[])[1] ?? {}, { start: 'fly' }),
      ),
      ['/protocol/stages/0/slots/1'],
    ],
    [
      'a dose outside the safe range',
      changed((p) =>
        Object.assign((p.stages[0]?.['slots'] as unknown as object[])[0] ?? {}, { dose: { sets: 90 } }),
      ),
      ['/protocol/stages/0/slots/0/dose/sets'],
    ],
    [
      'criteria on a measure that is never taken',
      changed((p) =>
        Object.assign(p.stages[0] ?? {}, {
          criteria: { measure: 'hallux-angle', side: 'treated', op: '>=', value: 3 },
        }),
      ),
      ['/protocol/stages/0'],
    ],
    [
      'a stage that could never be left',
      changed((p) => Object.assign(p.stages[1] ?? {}, { criteria: null })),
      ['/protocol/stages/1/criteria'],
    ],
    [
      'the same stage twice',
      changed((p) => Object.assign(p.stages[1] ?? {}, { key: p.stages[0]?.['key'] })),
      ['/protocol'],
    ],
  ])('refuses %s by its place', (_what, file, places) => {
    const found = checkProtocolFile(file, { replaces: KEY, version: 4 }, content);
    expect(found.ok).toBe(false);
    const pointers = found.ok ? [] : found.problems.map((p) => p.pointer);
    for (const place of places) expect(pointers).toContain(place);
  });

  it('says in words what is wrong', () => {
    expect(
      problems(
        changed((p) =>
          Object.assign((p.stages[0]?.['slots'] as unknown as object[])[1] ?? {}, { start: 'fly' }),
        ),
      ),
    ).toEqual([expect.stringMatching(/there is no exercise fly$/)]);
  });

  it('stands for nothing that is not there', () =>
    expect(checkProtocolFile(fileOf(KEY), { replaces: 'no-such', version: 1 }, content)).toEqual({
      ok: false,
      problems: [{ pointer: '/protocol', detail: 'there is no protocol no-such' }],
    }));
});

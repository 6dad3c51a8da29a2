import { loadContent } from '@heathstep/content';
import { stretchesOf } from './courseStretches.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error('content');
const protocol = loaded.content.protocols.find((p) => p.stages.length > 3);
if (protocol === undefined) throw new Error('no long protocol');
const [first, second, third] = protocol.stages;
if (first === undefined || second === undefined || third === undefined) throw new Error('no stages');

const episode = {
  stage: first.key,
  today: '2026-03-20',
  stages: [{ stage: first.key, since: '2026-03-01T10:00:00Z', reason: 'first plan' }],
} as unknown as Parameters<typeof stretchesOf>[0];
const drawn = (planned: typeof second.key | null) =>
  stretchesOf(episode, protocol, planned).map((s) => [s.stage, s.kind, s.from] as const);

describe('the weeks of a course', () => {
  it('go on from the stage someone is in', () =>
    expect(drawn(null).slice(0, 2)).toEqual([
      [first.key, 'now', '2026-03-01'],
      [second.key, 'ahead', expect.any(String)],
    ]));

  it('go on from the stage of a draft, which would begin today', () =>
    expect(drawn(third.key).slice(0, 2)).toEqual([
      [first.key, 'done', '2026-03-01'],
      [third.key, 'now', '2026-03-20'],
    ]));

  it('are the same for a draft of the stage someone is in', () =>
    expect(drawn(first.key)).toEqual(drawn(null)));
});

import type { HomeEntryBody } from '@heathstep/contracts';
import { ApiError } from '../../api/client.js';
import { HomeOutbox, type OutboxOn } from './homeStore.js';

/** A phone's storage, and a clinic that takes what comes under the link that is open. */
function phone(open: string) {
  const kept = new Map<string, unknown>();
  const state = { open, lost: false, refuse: false, taken: [] as HomeEntryBody[], due: [] as (() => void)[] };
  const on: OutboxOn = {
    send: (entry) => {
      if (state.lost) return Promise.reject(new TypeError('no network'));
      const status = entry.episodeId === state.open ? (state.refuse ? 422 : 200) : 401;
      if (status !== 200)
        return Promise.reject(new ApiError(status, { type: '', title: 'not taken', status }));
      state.taken.push(entry);
      return Promise.resolve(entry);
    },
    load: (key, otherwise) => (kept.has(key) ? (kept.get(key) as never) : otherwise),
    keep: (key, value, forget) => {
      if (forget) kept.delete(key);
      else kept.set(key, value);
    },
    after: (_ms, run) => {
      state.due.push(run);
      return () => (state.due = state.due.filter((r) => r !== run));
    },
  };
  const tick = async () => {
    for (const run of state.due.splice(0)) run();
    await new Promise((done) => setImmediate(done));
  };
  const outbox = (episode: string) => {
    const box = new HomeOutbox(episode, () => undefined, on);
    box.start();
    return box;
  };
  return { state, tick, outbox };
}

const entry = (id: string, over: Partial<HomeEntryBody> = {}): HomeEntryBody => ({
  id,
  version: 1,
  kind: 'morning',
  day: '2026-03-02',
  payload: { scores: { 'first-steps': 3 } },
  ...over,
});
const stop = (id: string) =>
  entry(id, { kind: 'stop', payload: { grade: 'emergency', sign: 'x', exercise: null } });

describe('what is logged on a phone', () => {
  it('is sent in order and told only once it was taken', async () => {
    const { state, tick, outbox } = phone('anna');
    const box = outbox('anna');
    box.add(entry('one'));
    box.add(entry('two'));
    expect(box.delivery('one')).toBe('sending');
    await tick();
    await tick();
    expect(state.taken.map((e) => e.id)).toEqual(['one', 'two']);
    expect(box.delivery('one')).toBe('told');
  });

  it('waits through a lost connection and a closed phone', async () => {
    const { state, tick, outbox } = phone('anna');
    state.lost = true;
    const box = outbox('anna');
    box.add(entry('one'));
    await tick();
    expect([box.delivery('one'), box.lost]).toEqual(['kept', true]);
    box.stop();
    state.lost = false;
    const again = outbox('anna');
    await tick();
    expect(again.list).toEqual([]);
    expect(state.taken.map((e) => e.id)).toEqual(['one']);
  });

  it('never goes out under the next one’s link: it waits until its own is open again', async () => {
    const { state, tick, outbox } = phone('anna');
    state.lost = true;
    const anna = outbox('anna');
    anna.add(entry('annas'));
    anna.add(stop('annas stop'));
    await tick();
    state.lost = false;
    state.open = 'ben';
    anna.retry();
    await tick();
    expect(state.taken).toEqual([]);
    anna.stop();
    const ben = outbox('ben');
    expect([ben.list, ben.stopNotKnown([], ['ben'])]).toEqual([[], null]);
    ben.add(entry('bens'));
    await tick();
    expect(state.taken.map((e) => [e.id, e.episodeId])).toEqual([['bens', 'ben']]);
    ben.stop();
    state.open = 'anna';
    const back = outbox('anna');
    expect(back.stopNotKnown([], ['anna'])).toBe('emergency');
    expect(back.stopNotKnown(['annas stop'], ['anna'])).toBeNull();
    await tick();
    await tick();
    expect(state.taken.map((e) => [e.id, e.episodeId]).slice(1)).toEqual([
      ['annas', 'anna'],
      ['annas stop', 'anna'],
    ]);
  });

  it('locks every complaint of a person by a stop reported for one, until the clinic knows of it', () => {
    const { outbox } = phone('heel');
    outbox('heel').add(stop('s'));
    const ankle = outbox('ankle');
    expect(ankle.stopNotKnown([], ['heel', 'ankle'])).toBe('emergency');
    ankle.forgetKnownStops(['s'], ['heel', 'ankle']);
    expect(ankle.stopNotKnown([], ['heel', 'ankle'])).toBeNull();
  });

  it('says what was refused and goes on with the rest', async () => {
    const { state, tick, outbox } = phone('anna');
    state.refuse = true;
    const box = outbox('anna');
    box.add(entry('one'));
    await tick();
    expect([box.delivery('one'), box.refused]).toEqual(['refused', 'not taken']);
    state.refuse = false;
    box.add(entry('two'));
    await tick();
    expect(state.taken.map((e) => e.id)).toEqual(['two']);
  });

  it('sends nothing once it is stopped', async () => {
    const { state, tick, outbox } = phone('anna');
    const box = outbox('anna');
    box.stop();
    box.add(entry('one'));
    await tick();
    expect([state.taken, box.list.length]).toEqual([[], 1]);
  });
});

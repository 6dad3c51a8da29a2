import fc from 'fast-check';
import type { EntryView } from '@heathstep/contracts';
import { EntryStore, type PendingEntry, type SendResult } from './entryStore.js';

/** A server that can be lost, a device that keeps, and a clock that only moves when told. */
function world(kept: readonly PendingEntry[] = []) {
  const server = new Map<string, EntryView>();
  const state = {
    lost: false,
    kept,
    ids: 0,
    due: [] as (() => void)[],
    sent: [] as number[],
    bad: new Set<string>(),
  };
  const view = (key: string, version: number, value: unknown, author = 'me'): EntryView => ({
    key,
    version,
    value,
    author,
    at: '',
  });
  const send = (entries: readonly PendingEntry[]): Promise<SendResult> => {
    if (state.lost) return Promise.resolve({ kind: 'unreachable' });
    state.sent.push(entries.length);
    if (entries.length > 200 || entries.some((e) => state.bad.has(e.key)))
      return Promise.resolve({ kind: 'failed' });
    const stale = entries.filter((e) => (server.get(e.key)?.version ?? 0) !== e.baseVersion);
    if (stale.length > 0)
      return Promise.resolve({
        kind: 'stale',
        message: '',
        current: stale.map((e) => server.get(e.key) ?? view(e.key, 0, null)),
      });
    for (const e of entries) server.set(e.key, view(e.key, e.baseVersion + 1, e.value));
    return Promise.resolve({
      kind: 'saved',
      saved: entries.map((e) => server.get(e.key) ?? view(e.key, 0, null)),
    });
  };
  const store = () =>
    new EntryStore([...server.values()], {
      send,
      load: () => state.kept,
      keep: (entries) => (state.kept = entries),
      newId: () => `id-${(state.ids += 1)}`,
      after: (_ms, run) => {
        state.due = [run];
        return () => (state.due = state.due.filter((d) => d !== run));
      },
    });
  return {
    server,
    state,
    store,
    other: (key: string, value: unknown) =>
      server.set(key, view(key, (server.get(key)?.version ?? 0) + 1, value, 'someone else')),
  };
}

describe('entries of a visit as they are typed', () => {
  it('shows a change at once, keeps it on the device, and forgets it there when saved', async () => {
    const w = world();
    const store = w.store();
    store.set('story.worst', 1);
    expect([store.get('story.worst'), store.status, w.state.kept.length]).toEqual([1, 'saving', 1]);
    await store.flush();
    expect([store.status, w.state.kept.length, w.server.get('story.worst')?.value]).toEqual(['saved', 0, 1]);
  });

  it('loses nothing with the server away, nor with a new page after a crash', async () => {
    const w = world();
    const store = w.store();
    w.state.lost = true;
    store.set('story.worst', 1);
    store.set('story.now', 2);
    await store.flush();
    expect([store.status, store.get('story.worst')]).toEqual(['unreachable', 1]);
    const after = w.store();
    expect([after.get('story.worst'), after.get('story.now')]).toEqual([1, 2]);
    w.state.lost = false;
    await after.flush();
    expect([w.server.get('story.worst')?.value, w.server.get('story.now')?.value, after.status]).toEqual([
      1,
      2,
      'saved',
    ]);
  });

  it('keeps both values of a stale edit until one is chosen, and saves the rest', async () => {
    const w = world();
    const store = w.store();
    w.other('story.worst', 4);
    store.set('story.worst', 7);
    store.set('story.now', 2);
    await store.flush();
    expect(store.status).toBe('conflict');
    expect(store.conflictList).toMatchObject([
      { key: 'story.worst', mine: 7, theirs: { value: 4, author: 'someone else' } },
    ]);
    await store.flush();
    expect(w.server.get('story.now')?.value).toBe(2);
    store.resolve('story.worst', 'mine');
    await store.flush();
    expect([w.server.get('story.worst')?.value, w.server.get('story.worst')?.version, store.status]).toEqual([
      7,
      2,
      'saved',
    ]);
  });

  it('sends any number that wait, in parts the server takes', async () => {
    const keys = Array.from({ length: 450 }, (_, i) => `skip.${i}`);
    const w = world(keys.map((key, i) => ({ id: `k${i}`, key, baseVersion: 0, value: 'later' })));
    const store = w.store();
    for (let i = 0; i < 10 && store.status !== 'saved'; i += 1) await store.flush();
    expect(store.status).toBe('saved');
    expect(w.server.size).toBe(450);
    expect(Math.max(...w.state.sent)).toBeLessThanOrEqual(200);
  });

  it('saves the rest beside what the server cannot take, keeps that on the device, and tries it again', async () => {
    const w = world();
    w.state.bad.add('story.now');
    const store = w.store();
    store.set('story.worst', 7);
    store.set('story.now', 2);
    store.set('story.night', true);
    for (let i = 0; i < 10; i += 1) await store.flush();
    expect([w.server.get('story.worst')?.value, w.server.get('story.night')?.value]).toEqual([7, true]);
    expect([store.get('story.now'), store.status, w.state.kept.map((e) => e.key)]).toEqual([
      2,
      'unreachable',
      ['story.now'],
    ]);
    w.state.bad.clear();
    store.retry();
    for (let i = 0; i < 3; i += 1) await store.flush();
    expect([w.server.get('story.now')?.value, store.status]).toEqual([2, 'saved']);
  });

  it('keeps no NUL and no half of a character, so that none can stop the saving', async () => {
    const w = world();
    const store = w.store();
    store.set('note.story', 'pasted\u0000 \ud83d here');
    await store.flush();
    expect(w.server.get('note.story')?.value).toBe('pasted \ufffd here');
  });

  it('takes theirs without sending anything', async () => {
    const w = world();
    const store = w.store();
    w.other('story.worst', 4);
    store.set('story.worst', 7);
    await store.flush();
    store.resolve('story.worst', 'theirs');
    expect([store.get('story.worst'), store.status, w.server.get('story.worst')?.version]).toEqual([
      4,
      'saved',
      1,
    ]);
  });

  it('undoes step by step', () => {
    const store = world().store();
    store.set('story.worst', 1);
    store.set('story.worst', 2);
    store.set('story.now', 3);
    expect([store.undo(), store.get('story.now')]).toEqual(['story.now', null]);
    expect([store.undo(), store.get('story.worst')]).toEqual(['story.worst', 1]);
    expect([store.undo(), store.get('story.worst'), store.undo()]).toEqual(['story.worst', null, null]);
  });

  it('makes again what was taken back, until something else is typed', () => {
    const store = world().store();
    store.set('story.worst', 1);
    store.setMany([
      ['story.worst', 2],
      ['story.now', 3],
    ]);
    store.undo();
    expect([store.get('story.worst'), store.get('story.now'), store.canRedo]).toEqual([1, null, true]);
    expect([store.redo(), store.get('story.worst'), store.get('story.now')]).toEqual(['story.worst', 2, 3]);
    expect([store.canRedo, store.redo()]).toEqual([false, null]);
    store.undo();
    store.set('story.now', 5);
    expect([store.canRedo, store.redo(), store.get('story.now')]).toEqual([false, null, 5]);
  });

  it('takes back what comes back from the server with its fields in another order, and sees no conflict in it', async () => {
    const w = world();
    const store = w.store();
    const key = 'measure.lunge-knee-bent.left' as const;
    store.set(key, { trials: [24], status: 'taken', pain: null });
    await store.flush();
    store.receive([
      { key, version: 2, value: { pain: null, status: 'taken', trials: [24] }, author: 'x', at: '' },
    ]);
    expect([store.undo(), store.get(key)]).toEqual([key, null]);
    store.set(key, { trials: [30], status: 'taken', pain: null });
    store.receive([
      { key, version: 3, value: { status: 'taken', pain: null, trials: [30] }, author: 'x', at: '' },
    ]);
    expect(store.status).not.toBe('conflict');
    expect(store.get(key)).toEqual({ trials: [30], status: 'taken', pain: null });
  });

  it('leaves what someone else changed meanwhile as they put it, and takes back what is left', async () => {
    const w = world();
    const store = w.store();
    store.set('story.now', 2);
    store.set('story.worst', 7);
    await store.flush();
    w.other('story.worst', 4);
    store.receive([...w.server.values()]);
    expect([store.undo(), store.get('story.worst'), store.get('story.now')]).toEqual(['story.now', 4, null]);
    expect([store.undo(), store.get('story.worst')]).toEqual([null, 4]);
  });

  it('comes back to the start by undoing everything, and to the end by making everything again', () => {
    const key = fc.constantFrom('story.worst' as const, 'story.now' as const, 'story.settles' as const);
    const change = fc.tuple(key, fc.option(fc.integer({ min: 0, max: 3 })));
    fc.assert(
      fc.property(
        fc.array(fc.uniqueArray(change, { minLength: 1, maxLength: 3, selector: ([k]) => k }), {
          maxLength: 12,
        }),
        fc.array(fc.boolean(), { maxLength: 20 }),
        (edits, wander) => {
          const store = world().store();
          for (const edit of edits) store.setMany(edit);
          const at = () => JSON.stringify(store.all());
          const end = new Map(store.all());
          for (const back of wander)
            if (back) store.undo();
            else store.redo();
          while (store.canUndo) store.undo();
          expect(store.all().every(([, value]) => value === null)).toBe(true);
          while (store.canRedo) store.redo();
          expect(new Map(store.all())).toEqual(end);
          const before = at();
          store.redo();
          expect(at()).toBe(before);
        },
      ),
    );
  });

  it('ends with what was typed last, whatever fails in between', async () => {
    const step = fc.oneof(
      fc.record({
        kind: fc.constant('set' as const),
        key: fc.constantFrom('story.worst', 'story.now'),
        value: fc.integer({ min: 0, max: 5 }),
      }),
      fc.record({
        kind: fc.constantFrom('flush' as const, 'lose' as const, 'find' as const, 'reload' as const),
      }),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(step, { maxLength: 25 }), async (steps) => {
        const w = world();
        let store = w.store();
        const typed = new Map<'story.worst' | 'story.now', number>();
        for (const s of steps) {
          if (s.kind === 'set') {
            store.set(s.key, s.value);
            typed.set(s.key, s.value);
          } else if (s.kind === 'flush') await store.flush();
          else if (s.kind === 'reload') store = w.store();
          else w.state.lost = s.kind === 'lose';
        }
        w.state.lost = false;
        await store.flush();
        for (const [key, value] of typed)
          expect([key, store.get(key), w.server.get(key)?.value]).toEqual([key, value, value]);
        expect([store.status, w.state.kept]).toEqual(['saved', []]);
      }),
    );
  });
});

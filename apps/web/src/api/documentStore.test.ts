import { DocumentStore, type DocumentResult, type Versioned } from './documentStore.js';

type Plan = readonly string[];

/** A server with one document, that can be lost, refuse, or be changed by another. */
function world(kept: Versioned<Plan> | null = null) {
  const state = { server: { value: ['raise'] as Plan, version: 1 }, lost: false, refuse: false, kept };
  const send = (value: Plan, version: number): Promise<DocumentResult<Plan>> => {
    if (state.lost) return Promise.resolve({ kind: 'unreachable' });
    if (state.refuse)
      return Promise.resolve({ kind: 'refused', errors: { '/items/0/sets': 'too many' }, message: 'no' });
    if (version !== state.server.version) return Promise.resolve({ kind: 'stale', theirs: state.server });
    state.server = { value, version: version + 1 };
    return Promise.resolve({ kind: 'saved', now: state.server });
  };
  const store = () =>
    new DocumentStore<Plan>(state.server, {
      send,
      load: () => state.kept,
      keep: (draft) => (state.kept = draft),
      after: () => () => undefined,
    });
  return { state, store };
}

describe('a plan as it is edited', () => {
  it('shows an edit at once, keeps it on the device, and forgets it there when saved', async () => {
    const { state, store } = world();
    const plan = store();
    plan.set(['raise', 'stretch']);
    expect([plan.value, plan.status, state.kept?.version]).toEqual([['raise', 'stretch'], 'saving', 1]);
    await plan.flush();
    expect([plan.status, plan.version, state.kept]).toEqual(['saved', 2, null]);
  });

  it('keeps a draft through a lost server and a reload', async () => {
    const { state, store } = world();
    const plan = store();
    state.lost = true;
    plan.set(['stretch']);
    await plan.flush();
    expect(plan.status).toBe('unreachable');
    state.lost = false;
    const again = store();
    expect(again.value).toEqual(['stretch']);
    await again.flush();
    expect([state.server.value, again.status]).toEqual([['stretch'], 'saved']);
  });

  it.each([
    ['mine', ['mine']],
    ['theirs', ['theirs']],
  ] as const)('never overwrites another’s edit unasked: keep %s', async (choice, wanted) => {
    const { state, store } = world();
    const plan = store();
    state.server = { value: ['theirs'], version: 2 };
    plan.set(['mine']);
    await plan.flush();
    expect([plan.status, plan.value, state.server.value]).toEqual(['conflict', ['mine'], ['theirs']]);
    plan.resolve(choice);
    await plan.flush();
    expect([plan.value, state.server.value, plan.status]).toEqual([wanted, wanted, 'saved']);
  });

  it('asks about a draft that was based on an older version', () => {
    const { store } = world({ value: ['old draft'], version: 0 });
    const plan = store();
    expect([plan.status, plan.value]).toEqual(['conflict', ['old draft']]);
  });

  it('keeps what was refused, with the error by its field, until it is edited', async () => {
    const { state, store } = world();
    const plan = store();
    state.refuse = true;
    plan.set(['raise x 99']);
    await plan.flush();
    expect([plan.status, plan.errors, plan.value]).toEqual([
      'refused',
      { '/items/0/sets': 'too many' },
      ['raise x 99'],
    ]);
    state.refuse = false;
    plan.set(['raise x 3']);
    await plan.flush();
    expect([plan.status, state.server.value]).toEqual(['saved', ['raise x 3']]);
  });

  it('undoes to what stood before', async () => {
    const { state, store } = world();
    const plan = store();
    plan.set([]);
    await plan.flush();
    plan.undo();
    await plan.flush();
    expect([plan.value, state.server.value, plan.canUndo]).toEqual([['raise'], ['raise'], false]);
  });

  it('takes again what was undone, until something else is done', () => {
    const plan = world().store();
    plan.set(['a']);
    plan.set(['b']);
    plan.undo();
    plan.undo();
    expect([plan.value, plan.canUndo, plan.canRedo]).toEqual([['raise'], false, true]);
    plan.redo();
    expect(plan.value).toEqual(['a']);
    plan.redo();
    expect([plan.value, plan.canRedo]).toEqual([['b'], false]);
    plan.redo();
    expect(plan.value).toEqual(['b']);
    plan.undo();
    plan.set(['c']);
    expect([plan.canRedo, plan.canUndo]).toEqual([false, true]);
    plan.undo();
    expect(plan.value).toEqual(['a']);
  });
});

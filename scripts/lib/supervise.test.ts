// @ts-expect-error The scripts are plain JavaScript, checked by what they do.
import { supervise as untyped } from './supervise.mjs';

interface Running {
  readonly ended: Promise<unknown>;
}

const supervise = untyped as (
  what: string,
  begin: () => Promise<Running>,
  on: {
    readonly first: Running;
    readonly giveUp: () => void;
    readonly stopping: () => boolean;
    readonly wait: (ms: number) => Promise<void>;
    readonly now: () => number;
  },
) => Promise<void>;

/** Something that ends at once, so many times, and then runs on until it is all over. */
function world(ends: number, everyMs: number) {
  const state = { begun: 0, gaveUp: 0, over: false, at: 0, waits: [] as number[] };
  const running = (): Running => {
    if (state.begun >= ends) state.over = true;
    return { ended: Promise.resolve('SIGKILL') };
  };
  const watching = supervise(
    'The thing',
    () => {
      state.begun += 1;
      state.at += everyMs;
      return Promise.resolve(running());
    },
    {
      first: running(),
      giveUp: () => (state.gaveUp += 1),
      stopping: () => state.over,
      wait: (ms) => {
        state.waits.push(ms);
        return Promise.resolve();
      },
      now: () => state.at,
    },
  );
  return { state, watching };
}

describe('keeping something running', () => {
  beforeEach(() => jest.spyOn(process.stderr, 'write').mockImplementation(() => true));
  afterEach(() => jest.restoreAllMocks());

  it('begins it again when it ends, each time after a longer wait', async () => {
    const { state, watching } = world(3, 1000);
    await watching;
    expect([state.begun, state.gaveUp]).toEqual([3, 0]);
    expect(state.waits).toEqual([250, 500, 1000]);
  });

  it('gives up when it ends again and again within a minute', async () => {
    const { state, watching } = world(99, 1000);
    await watching;
    expect([state.begun, state.gaveUp]).toEqual([5, 1]);
  });

  it('goes on where the ends are far apart, and waits no longer each time', async () => {
    const { state, watching } = world(20, 70_000);
    await watching;
    expect([state.begun, state.gaveUp]).toEqual([20, 0]);
    expect(new Set(state.waits)).toEqual(new Set([250]));
  });

  it('counts what could not be begun as an end', async () => {
    let gaveUp = 0;
    await supervise('The thing', () => Promise.reject(new Error('no port')), {
      first: { ended: Promise.resolve() },
      giveUp: () => (gaveUp += 1),
      stopping: () => false,
      wait: () => Promise.resolve(),
      now: () => 0,
    });
    expect(gaveUp).toBe(1);
  });
});

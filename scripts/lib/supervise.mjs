import { say } from './say.mjs';

const FIRST_MS = 250;
const LAST_MS = 8000;
/** So many ends within a minute are no accident any more. */
const MOST_ENDS = 5;
const WITHIN_MS = 60_000;

/**
 * Keeps something running: begun again when it ends, each time after a longer wait, and given up when it ends again and again.
 *
 * @param what what it is, as it is said: `The server`
 * @param begin starts it, and resolves to what tells of its end
 * @param on `giveUp` is called once no more is tried; `stopping` says that it is to end
 */
export function supervise(
  what,
  begin,
  { first, giveUp, stopping, wait = (ms) => new Promise((r) => setTimeout(r, ms)), now = Date.now },
) {
  const ends = [];
  const watch = async (running) => {
    for (let current = running; ;) {
      const why = await current.ended;
      if (stopping()) return;
      ends.push(now());
      const lately = ends.filter((at) => at > now() - WITHIN_MS).length;
      if (lately > MOST_ENDS) {
        say(`${what} ended ${lately} times within a minute; it is given up`);
        giveUp();
        return;
      }
      const pause = Math.min(LAST_MS, FIRST_MS * 2 ** (lately - 1));
      say(`${what} ended by itself${why ? ` (${why})` : ''}; it is started again`);
      await wait(pause);
      if (stopping()) return;
      current = await begin().catch((error) => ({ ended: Promise.resolve(error.message) }));
    }
  };
  return watch(first);
}

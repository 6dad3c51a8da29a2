// One worker of the study: lives made-up people of one protocol at a time and sends what came of them.
import { parentPort } from 'node:worker_threads';
import { loadContent, loadFamilies } from '@heathstep/content';
import { addTallies, calibrationOf, simulateEpisode, StagePlans, tallyOf } from '@heathstep/core/simulate';

const { content } = loadContent();
const families = loadFamilies(content);
const library = { exercises: content.exercises, measures: content.measures, ladders: content.ladders };
const plans = new Map();
const FROM = '2026-01-05';

function plansOf(key) {
  const protocol = content.protocols.find((p) => p.key === key);
  const made = plans.get(key) ?? new StagePlans(protocol, library);
  plans.set(key, made);
  return made;
}

parentPort.on('message', ({ id, protocol, seeds, weeks, policy, without, twist, calibrated }) => {
  const family = families.find((f) => f.protocols.includes(protocol));
  const of = plansOf(protocol);
  const last = of.protocol.stages.at(-1).key;
  const lived = seeds.map((seed) =>
    simulateEpisode({
      family,
      plans: of,
      seed,
      weeks,
      from: FROM,
      policy,
      without: new Set(without),
      twist,
    }),
  );
  parentPort.postMessage({
    id,
    tally: addTallies(lived.map((e) => tallyOf(e, FROM, last))),
    forecasts: calibrated ? lived.flatMap((e) => calibrationOf(e, FROM, of.measureOf)) : [],
  });
});

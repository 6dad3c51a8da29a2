// The bench of the planner: real stages filled, and the search beside looking at every filling there is.
import { loadContent } from '@heathstep/content';
import { composePlan } from '@heathstep/core';
import { fillPlaces } from '../../packages/core/dist/plan/planner.js';

const NOW = '2026-03-20T10:00:00';
const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];

function timed(work) {
  const from = performance.now();
  work();
  return performance.now() - from;
}

/** Made-up places with the same numbers each time. */
function made(places, choices) {
  let seed = 7;
  const next = (below) => {
    seed = (seed * 1103515245 + 12345) % 2147483648;
    return seed % below;
  };
  return Array.from({ length: places }, (_, p) => ({
    key: `p${p}`,
    must: false,
    choices: Array.from({ length: choices }, (_c, i) => ({
      exercise: `e${p}-${i}`,
      value: 1 + next(90) / 10,
      minutes: 1 + next(60) / 10,
      takes: { calf: next(9) },
      kind: ['skill', 'strength', 'balance', 'range'][next(4)],
    })),
  }));
}

const LIMITS = { minutes: 20, count: 5, most: { calf: 18 } };

/** How many fillings there are, each weighed: what the search saves looking at. */
function everyFilling(places, limits) {
  let best = 0;
  const walk = (at, value, minutes, calf, count) => {
    if (at === places.length) {
      if (minutes <= limits.minutes && calf <= limits.most.calf && count <= limits.count)
        best = Math.max(best, value);
      return;
    }
    walk(at + 1, value, minutes, calf, count);
    for (const c of places[at].choices)
      walk(at + 1, value + c.value, minutes + c.minutes, calf + c.takes.calf, count + 1);
  };
  walk(0, 0, 0, 0, 0);
  return best;
}

export function benchPlanner(line) {
  const loaded = loadContent();
  if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
  const { content } = loaded;
  const lookup = (key) => content.measures.find((m) => m.key === key);
  const fill = (protocol, stage, minutesPerDay) => {
    composePlan(
      {
        stage,
        exercises: content.exercises,
        facts: { measures: [], sessions: [], skills: {}, stageSince: NOW, affected: 'both' },
        schools: Object.fromEntries(protocol.schools.map((s) => [s.key, s.default])),
        equipment: ['towel', 'belt', 'ball', 'step', 'hand weight', 'band'],
        minutesPerDay,
        tagsOff: { left: [], right: [] },
        drivers: [],
        now: NOW,
      },
      lookup,
    );
  };
  const took = [];
  for (const round of [0, 1, 2])
    for (const protocol of content.protocols)
      for (const stage of protocol.stages)
        for (const minutes of [10, 25]) {
          const ms = timed(() => fill(protocol, stage, minutes));
          if (round > 0) took.push(ms);
        }
  line('a stage filled, all protocols (median)', `${median(took).toFixed(2)} ms`, 'under 16 ms');
  line('a stage filled, all protocols (slowest)', `${Math.max(...took).toFixed(1)} ms`, 'none');

  const small = made(8, 4);
  fillPlaces(small, LIMITS);
  const search = median(Array.from({ length: 15 }, () => timed(() => fillPlaces(small, LIMITS))));
  const naive = median(Array.from({ length: 5 }, () => timed(() => everyFilling(small, LIMITS))));
  line('8 places of 4: search against every filling', `${(naive / search).toFixed(0)} times`, 'over 1');
  const large = made(20, 5);
  const hundred = median(Array.from({ length: 9 }, () => timed(() => fillPlaces(large, LIMITS))));
  line('100 candidates in 20 places, exact (median)', `${hundred.toFixed(1)} ms`, 'under 20 ms');
}

import type { CriterionAhead } from '../forecast/criteria.js';
import { shown } from '../quantity/statistics.js';
import { say } from '../quantity/tongue.js';
import type { Why } from './why.js';

/** How a forecast of a criterion came about: the values it was made on, and what it does not say. */
export function whyForecast({ text, inputs }: CriterionAhead): Why {
  return {
    statement: say('Forecast: {{text}}', { text }),
    inputs: inputs.flatMap((i, n) =>
      [...i.series]
        .sort((a, b) => (a.at < b.at ? -1 : 1))
        .map((p) => ({
          name:
            inputs.length > 1
              ? say('{{day}}, series {{n}}', { day: p.at.slice(0, 10), n: n + 1 })
              : p.at.slice(0, 10),
          value: shown(p.value, 1),
        })),
    ),
    rule: say(
      'Trends that level off sooner or later are fitted to the comparable values with their error; of 2 000 draws the middle and four in five are told. It supposes that things go on as they went.',
    ),
    arithmetic: inputs.map((i) =>
      say('wanted {{threshold}}, error of a value {{sem}}', {
        threshold: shown(i.threshold, 1),
        sem: shown(i.sem, 2),
      }),
    ),
    source: say('Convention, settled on made-up people; no evidence for patients'),
    reviewKey: 'rule:forecast',
  };
}

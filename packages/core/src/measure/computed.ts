import { say } from '../quantity/tongue.js';
import type { ComputedRule, MeasureDefinition } from './definition.js';

/** Everything a computed measure may read on one side. */
export interface ComputeInputs {
  /** Value of another measure on this side, or of one without sides; null when not taken. */
  readonly value: (measure: string) => number | null;
  /** A named part of a measure's entry, such as `lever` in cm; null when not given. */
  readonly part: (measure: string, part: string) => number | null;
  readonly bodyMassKg: number | null;
  /** Monofilament sites felt and tested on this side; null when not tested. */
  readonly sites: { readonly felt: number; readonly tested: number } | null;
  /** The patient's own activities, each 0 to 10. */
  readonly abilities: readonly number[];
}

export type Computed =
  | { readonly value: number; readonly arithmetic: string }
  | { readonly value: null; readonly missing: readonly string[] };

/** Share of body weight taken to load the arch between sitting and standing on two feet: half less the seated tenth. */
const ARCH_LOAD_SHARE = 0.4;

const CM_PER_M = 100;

/** Monofilament sites on each foot. */
const SITES = 10;

type Rule = (from: readonly string[], i: ComputeInputs) => Computed;

const text = (value: number): string => String(Number(value.toFixed(3)));

/** Runs once every named number is there; else says which are missing. */
function withAll(
  numbers: readonly (readonly [name: string, value: number | null])[],
  run: (...values: number[]) => Computed,
): Computed {
  const missing = numbers.filter(([, v]) => v === null).map(([name]) => name);
  return missing.length > 0 ? { value: null, missing } : run(...numbers.map(([, v]) => v as number));
}

const named = (from: readonly string[], i: ComputeInputs) => from.map((k) => [k, i.value(k)] as const);

const dividing = (top: number, bottom: number, name: string, arithmetic: string): Computed =>
  bottom === 0
    ? { value: null, missing: [say('{{name}} that is not zero', { name })] }
    : { value: top / bottom, arithmetic };

const RULES: Readonly<Record<ComputedRule, Rule>> = {
  difference: (from, i) =>
    withAll(named(from, i), (a, b) => ({
      value: a - b,
      arithmetic: `${text(a)} - ${text(b)}`,
    })),
  ratio: (from, i) =>
    withAll(named(from, i), (a, b) => dividing(a, b, from[1] ?? '', `${text(a)} / ${text(b)}`)),
  'change-percent': (from, i) =>
    withAll(named(from, i), (now, before) =>
      dividing(
        (now - before) * 100,
        before,
        from[1] ?? '',
        `(${text(now)} - ${text(before)}) / ${text(before)} x 100`,
      ),
    ),
  'reach-composite': (from, i) =>
    withAll(named(from, i), (a, pm, pl, leg) =>
      dividing(
        (a + pm + pl) * 100,
        3 * leg,
        'leg-length',
        `(${text(a)} + ${text(pm)} + ${text(pl)}) / (3 x ${text(leg)}) x 100`,
      ),
    ),
  'arch-stiffness': (from, i) =>
    withAll([...named(from, i), [say('body mass'), i.bodyMassKg]], (sitting, standing, mass) =>
      sitting > standing
        ? {
            value: (ARCH_LOAD_SHARE * mass) / (sitting - standing),
            arithmetic: say('{{archLoadShare}} x {{text}} kg / ({{text2}} - {{text3}})', {
              archLoadShare: ARCH_LOAD_SHARE,
              text: text(mass),
              text2: text(sitting),
              text3: text(standing),
            }),
          }
        : { value: null, missing: [say('an arch that lowers on standing')] },
    ),
  'torque-per-kg': ([force = ''], i) =>
    withAll(
      [
        [force, i.value(force)],
        [say('lever arm'), i.part(force, 'lever')],
        [say('body mass'), i.bodyMassKg],
      ],
      (newton, leverCm, mass) =>
        dividing(
          (newton * leverCm) / CM_PER_M,
          mass,
          say('body mass'),
          say('{{text}} N x {{text2}} cm / 100 / {{text3}} kg', {
            text: text(newton),
            text2: text(leverCm),
            text3: text(mass),
          }),
        ),
    ),
  'sites-felt': (_from, i) =>
    i.sites === null || i.sites.tested < SITES
      ? { value: null, missing: [say('all {{sites}} sites of the foot', { sites: SITES })] }
      : {
          value: i.sites.felt,
          arithmetic: say('{{felt}} felt of {{tested}} tested', {
            felt: i.sites.felt,
            tested: i.sites.tested,
          }),
        },
  'ability-mean': (_from, i) =>
    i.abilities.length === 0
      ? { value: null, missing: [say('own activities')] }
      : {
          value: i.abilities.reduce((a, b) => a + b, 0) / i.abilities.length,
          arithmetic: `(${i.abilities.join(' + ')}) / ${i.abilities.length}`,
        },
};

/** Works a computed measure out on one side, or says what is missing; null for a measure that is taken. */
export function computeMeasure(measure: MeasureDefinition, inputs: ComputeInputs): Computed | null {
  if (measure.computed === null) return null;
  return RULES[measure.computed.rule](measure.computed.from, inputs);
}

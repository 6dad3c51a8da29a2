import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Ajv, type ValidateFunction } from 'ajv';
import {
  completeProtocol,
  CRITERION_SCHEMA,
  type ProtocolDefinition,
  type ProtocolFile,
} from '@heathstep/core';
import type { ContentBundle, ContentProblem } from './bundle.js';
import { problemsOfProtocol } from './crossCheckProtocols.js';
import { type FileProblem, wrong } from './fileProblems.js';
import { TAG_SCHEMA } from './tagSchema.js';

export type CheckedProtocol =
  | { readonly ok: true; readonly protocol: ProtocolDefinition }
  | { readonly ok: false; readonly problems: readonly FileProblem[] };

/** Which protocol a clinic's own stands for, and in which of its versions. */
export interface OwnProtocol {
  readonly replaces: string;
  readonly version: number;
}

/** The key of a clinic's own version of a protocol. */
export const ownProtocolKey = (replaces: string): string => `clinic-${replaces}`;

const FOLDER = fileURLToPath(new URL('../schemas', import.meta.url));

let made: { readonly file: ValidateFunction; readonly protocols: ValidateFunction } | null = null;

function validators(): { readonly file: ValidateFunction; readonly protocols: ValidateFunction } {
  if (made !== null) return made;
  const ajv = new Ajv({ allErrors: true, allowUnionTypes: true });
  const schema = (name: string) =>
    JSON.parse(readFileSync(join(FOLDER, `${name}.schema.json`), 'utf8')) as object;
  ajv.addSchema(TAG_SCHEMA);
  ajv.addSchema(CRITERION_SCHEMA);
  ajv.addSchema(schema('sign'));
  made = { file: ajv.compile(schema('protocolFile')), protocols: ajv.compile(schema('protocols')) };
  return made;
}

/** Where in the file a problem across its parts is: its stage and slot, as far as it names them. */
function pointerOf(problem: ContentProblem, protocol: ProtocolDefinition): string {
  const [, stageKey] = problem.path.split('/');
  const at = protocol.stages.findIndex((s) => s.key === stageKey);
  const stage = protocol.stages[at];
  if (stage === undefined) return '/protocol';
  const slot = /^slot ([a-z0-9-]+)/.exec(problem.reason)?.[1];
  const place = stage.slots.findIndex((s) => s.key === slot);
  if (place === -1) return `/protocol/stages/${at}`;
  const field = /^slot [a-z0-9-]+, [a-z0-9-]+: ([a-zA-Z]+) is not /.exec(problem.reason)?.[1];
  return `/protocol/stages/${at}/slots/${place}${field === undefined ? '' : `/dose/${field}`}`;
}

/** What no protocol can be without, however it is written. */
function shapeProblems(protocol: ProtocolDefinition): FileProblem[] {
  const last = protocol.stages.length - 1;
  return protocol.stages.flatMap((stage, i): FileProblem[] => {
    const at = `/protocol/stages/${i}`;
    return [
      ...(i === last && stage.criteria !== null
        ? [{ pointer: `${at}/criteria`, detail: 'the last stage is upkeep and has none' }]
        : []),
      ...(i < last && stage.criteria === null
        ? [
            {
              pointer: `${at}/criteria`,
              detail: 'only the last stage has none: this one could never be left',
            },
          ]
        : []),
      ...(i === 0 && stage.entry !== null
        ? [{ pointer: `${at}/entry`, detail: 'the first stage is open to everyone' }]
        : []),
    ];
  });
}

/**
 * Checks a protocol that a clinic changes or imports, as strictly as the shipped ones, and completes it. It gets a key of the
 * clinic's own and stands for a shipped protocol, whose conditions it is for.
 */
export function checkProtocolFile(file: unknown, own: OwnProtocol, content: ContentBundle): CheckedProtocol {
  const v = validators();
  const outer = wrong(v.file, file, '');
  if (outer.length > 0) return { ok: false, problems: outer };
  const shipped = content.protocols.find((p) => p.key === own.replaces);
  if (shipped === undefined)
    return {
      ok: false,
      problems: [{ pointer: '/protocol', detail: `there is no protocol ${own.replaces}` }],
    };
  const written = {
    ...(file as ProtocolFile).protocol,
    key: ownProtocolKey(own.replaces),
    version: own.version,
    conditions: shipped.conditions,
  };
  const fields = wrong(v.protocols, [written], '').map((p) => ({
    ...p,
    pointer: p.pointer.replace(/^\/0/, '/protocol'),
  }));
  if (fields.length > 0) return { ok: false, problems: fields };
  const aimOf = (key: string) => content.exercises.find((e) => e.key === key)?.aim ?? 'skill';
  const protocol = completeProtocol(written, aimOf);
  const mine = content.pathways.map((p) =>
    p.protocol === own.replaces ? { ...p, protocol: protocol.key } : p,
  );
  const problems = [
    ...shapeProblems(protocol),
    ...problemsOfProtocol(protocol, { ...content, pathways: mine }).map((p) => ({
      pointer: pointerOf(p, protocol),
      detail: p.reason,
    })),
  ];
  return problems.length > 0 ? { ok: false, problems } : { ok: true, protocol };
}

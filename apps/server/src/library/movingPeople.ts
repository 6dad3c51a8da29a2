import { Injectable } from '@nestjs/common';
import { ownProtocolKey } from '@heathstep/content';
import type { PersonOnProtocol } from '@heathstep/contracts';
import { type ProtocolDefinition, stageOf, say, sayIf } from '@heathstep/core';
import type { SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { Content } from '../content/content.controller.js';
import { keepProtocol } from '../content/protocols.js';
import { EpisodeReader } from '../episodes/reader.js';
import type { EpisodeRecord } from '../episodes/record.js';
import { badRequest } from '../http/problem.js';
import { audit, type Tx } from '../persistence/db.js';
import { EpisodeRow } from '../persistence/entities.js';
import { PlanDrafts } from '../plans/planDrafts.js';

/** Who is treated by a protocol in which version, and takes them to the one used now. */
@Injectable()
export class MovingPeople {
  constructor(
    private readonly content: Content,
    private readonly reader: EpisodeReader,
    private readonly drafts: PlanDrafts,
    private readonly clock: Clock,
  ) {}

  async list(tx: Tx, key: string): Promise<PersonOnProtocol[]> {
    const current = await this.content.current(tx, key);
    return (await this.records(tx, key)).map((record) => this.preview(record, key, current));
  }

  /** Moves some of them, all or none: who cannot be moved is named. Plans that were given stay as they are. */
  async move(tx: Tx, me: SignedIn, key: string, episodes: readonly string[]): Promise<void> {
    const current = await this.content.current(tx, key);
    const records = (await this.records(tx, key)).filter((r) => episodes.includes(r.row.id));
    const problems = episodes.flatMap((id, i) => {
      const record = records.find((r) => r.row.id === id);
      const detail = record === undefined ? say('is not treated by this protocol') : stays(record, current);
      return detail === null ? [] : [{ pointer: `/episodes/${i}`, detail }];
    });
    if (problems.length > 0) throw badRequest(problems);
    await keepProtocol(tx, me.clinicId, current, this.clock.now());
    for (const { row } of records) {
      await tx.update(
        EpisodeRow,
        { id: row.id },
        {
          protocol: current.key,
          protocolVersion: current.version,
          schools: schoolsOn(current, row.schools),
          version: () => 'version + 1',
        },
      );
      await audit(tx, me, { action: 'move', subject: `protocol:${current.key}`, personId: row.personId });
    }
  }

  private async records(tx: Tx, key: string): Promise<EpisodeRecord[]> {
    const keys = [key, ownProtocolKey(key)];
    return (await this.reader.readOpen(tx)).filter((r) => keys.includes(r.row.protocol));
  }

  private preview(record: EpisodeRecord, key: string, current: ProtocolDefinition): PersonOnProtocol {
    const { row, view, library } = record;
    const here = isOn(record, current);
    const stage = stageOf(current, row.stage);
    const planned = view.plan?.items.map((i) => i.exercise) ?? [];
    const filled =
      here || stage === null || view.plan === null
        ? planned
        : this.drafts.filled({ ...record, protocol: current }, stage).map((e) => e.exercise);
    const nameOf = (exercise: string) => library.exercise(exercise)?.name ?? exercise;
    return {
      episodeId: row.id,
      name: view.person.name,
      version: `${row.protocol === key ? say('shipped') : say('ours')} ${row.protocolVersion}`,
      stageName: sayIf(stageOf(record.protocol, row.stage)?.name ?? null),
      current: here,
      stays: here ? null : stays(record, current),
      come: filled.filter((e) => !planned.includes(e)).map(nameOf),
      gone: planned.filter((e) => !filled.includes(e)).map(nameOf),
    };
  }
}

const isOn = ({ row }: EpisodeRecord, protocol: ProtocolDefinition): boolean =>
  row.protocol === protocol.key && row.protocolVersion === protocol.version;

/** Why someone cannot be moved as they are; null where they can. */
function stays({ row, view, protocol }: EpisodeRecord, current: ProtocolDefinition): string | null {
  if (row.stage !== null && stageOf(current, row.stage) === null)
    return say('is in the stage {{name}}, which is no more: decide the stage first', {
      name: stageOf(protocol, row.stage)?.name ?? row.stage,
    });
  return view.draft === null ? null : say('has a draft of a plan open: give it or discard it first');
}

/** The choices made, as far as the protocol asks for them; its defaults for the rest. */
const schoolsOn = (
  { schools }: ProtocolDefinition,
  chosen: Readonly<Record<string, string>>,
): Record<string, string> =>
  Object.fromEntries(
    schools.map((s) => {
      const kept = s.options.find((o) => o.key === chosen[s.key])?.key;
      return [s.key, kept ?? s.default];
    }),
  );

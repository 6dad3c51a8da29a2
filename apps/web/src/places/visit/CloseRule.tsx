import { useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import { canOverride, type TriggeredRule } from '@heathstep/core';
import type { LiveVisit } from './live.js';
import { keys } from '../../api/queries.js';
import { CloseDialog, type ClosureValues } from '../../parts/CloseDialog.js';
import { request } from '../../api/client.js';

/** Closes a triggered rule with its result, or overrides one of the lower levels with a reason. */
export function CloseRule({ live, rule, done }: { live: LiveVisit; rule: TriggeredRule; done: () => void }) {
  const client = useQueryClient();
  const id = useRef(crypto.randomUUID());
  const episodeId = live.course.episode.id;
  const send = async (values: ClosureValues) => {
    await live.store.flush();
    await request('POST', `/api/episodes/${episodeId}/closures`, {
      id: id.current,
      subject: `rule:${rule.rule.key}`,
      side: rule.side,
      ...values,
    });
    await client.invalidateQueries({ queryKey: keys.course(episodeId) });
    done();
  };
  return (
    <CloseDialog
      title={rule.rule.title}
      today={live.course.episode.today}
      ways={rule.rule.closes ?? []}
      overridable={canOverride(rule.rule)}
      send={send}
      cancel={done}
    />
  );
}

import { say } from '@heathstep/core';
import type { ProtocolDefinition } from '@heathstep/core';

/** Who a protocol is not for, how it usually goes, and when someone else should look. */
export function AboutProtocol({ protocol }: { protocol: ProtocolDefinition }) {
  const list = (title: string, lines: readonly string[]) =>
    lines.length === 0 ? null : (
      <>
        <dt className="mt-2 font-semibold">{title}</dt>
        {lines.map((line) => (
          <dd key={line} className="text-ink-2">
            {line}.
          </dd>
        ))}
      </>
    );
  return (
    <details className="mt-5 border-t border-line pt-4 text-sm">
      <summary className="min-h-9 cursor-pointer font-head text-base font-semibold">
        {say('About this protocol')}
      </summary>
      <dl>
        {list(say('Not for'), protocol.excludes)}
        {list(say('Usual course'), protocol.usually === '' ? [] : [protocol.usually])}
        {list(
          say('Look again'),
          protocol.lookAgain === ''
            ? []
            : [
                say('After {{lookAgainWeeks}} weeks without change: {{lookAgain}}', {
                  lookAgainWeeks: protocol.lookAgainWeeks,
                  lookAgain: protocol.lookAgain,
                }),
              ],
        )}
        {list(say('Refer'), protocol.refer)}
        {list(say('Both sides'), protocol.bothSides === '' ? [] : [protocol.bothSides])}
        {list(say('A test that cannot be done'), protocol.cannotTest === '' ? [] : [protocol.cannotTest])}
        {list(say('When it comes back'), protocol.relapse === '' ? [] : [protocol.relapse])}
      </dl>
      <p className="mt-2 text-xs text-ink-3">
        {say('{{statement}}. {{source}} ({{kind}}). Who signed it stands in the library.', {
          statement: protocol.evidence.statement,
          source: protocol.evidence.source,
          kind: say(protocol.evidence.kind),
        })}
      </p>
    </details>
  );
}

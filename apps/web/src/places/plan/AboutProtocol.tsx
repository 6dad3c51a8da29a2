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
        About this protocol
      </summary>
      <dl>
        {list('Not for', protocol.excludes)}
        {list('Usual course', protocol.usually === '' ? [] : [protocol.usually])}
        {list(
          'Look again',
          protocol.lookAgain === ''
            ? []
            : [`After ${protocol.lookAgainWeeks} weeks without change: ${protocol.lookAgain}`],
        )}
        {list('Refer', protocol.refer)}
        {list('Both sides', protocol.bothSides === '' ? [] : [protocol.bothSides])}
        {list('A test that cannot be done', protocol.cannotTest === '' ? [] : [protocol.cannotTest])}
        {list('When it comes back', protocol.relapse === '' ? [] : [protocol.relapse])}
      </dl>
      <p className="mt-2 text-xs text-ink-3">{`${protocol.evidence.statement}. ${protocol.evidence.source} (${protocol.evidence.kind}). Who signed it stands in the library.`}</p>
    </details>
  );
}

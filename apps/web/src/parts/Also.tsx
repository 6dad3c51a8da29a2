/** What clinicians call something, small beside its plain name. */
export function Also({
  of,
  most = 3,
}: {
  of: { readonly also?: readonly string[] | undefined };
  most?: number;
}) {
  const terms = (of.also ?? []).slice(0, most);
  return terms.length === 0 ? null : <span className="text-sm text-ink-3">{terms.join(', ')}</span>;
}

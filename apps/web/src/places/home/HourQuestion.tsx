/** An hour after the session: is it still clearly higher than before. */
export function HourQuestion({ before, answer }: { before: number; answer: (above: boolean) => void }) {
  return (
    <section className="mx-5 mt-5 rounded-xl bg-heather-wash p-5">
      <h2>An hour after</h2>
      <p className="mt-1">{`Is your pain still ${before + 2} or more? It was ${before} before you started. Answer when an hour has passed.`}</p>
      <div className="mt-3 grid grid-cols-2 gap-3">
        <button type="button" className="action-quiet min-h-14 text-lg" onClick={() => answer(false)}>
          No
        </button>
        <button type="button" className="action-quiet min-h-14 text-lg" onClick={() => answer(true)}>
          Yes, still
        </button>
      </div>
    </section>
  );
}

import type { LanguageView } from '@heathstep/contracts/language';
import { speakBy } from '@heathstep/core';

/** A worker says what it tells in the language of the page it works for. */
export async function speakAs(language: LanguageView | null): Promise<void> {
  if (language === null) return;
  const { clinicianTongueOf } = await import('@heathstep/contracts/language');
  const tongue = clinicianTongueOf(language);
  speakBy(() => tongue);
}

/** Text packed as captures are kept. */
export async function packed(lines: Iterable<string>): Promise<Blob> {
  const encoder = new TextEncoder();
  const iterator = lines[Symbol.iterator]();
  const source = new ReadableStream<BufferSource>({
    pull(controller) {
      // Some lines at a time: each alone would be slow, all at once large.
      let text = '';
      for (let i = 0; i < 200; i += 1) {
        const next = iterator.next();
        if (next.done === true) {
          if (text !== '') controller.enqueue(encoder.encode(text));
          controller.close();
          return;
        }
        text += next.value;
      }
      controller.enqueue(encoder.encode(text));
    },
  });
  return new Response(source.pipeThrough(new CompressionStream('gzip'))).blob();
}

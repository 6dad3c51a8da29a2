let context: AudioContext | null = null;

/** A short click, higher on the way up; silent where sound is not to be had. */
export function click(high: boolean): void {
  try {
    context ??= new AudioContext();
    const tone = context.createOscillator();
    const loudness = context.createGain();
    tone.frequency.value = high ? 880 : 620;
    loudness.gain.setValueAtTime(0.2, context.currentTime);
    loudness.gain.exponentialRampToValueAtTime(0.001, context.currentTime + 0.06);
    tone.connect(loudness).connect(context.destination);
    tone.start();
    tone.stop(context.currentTime + 0.07);
  } catch {
    // The ring still shows the beat.
  }
}

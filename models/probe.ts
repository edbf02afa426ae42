/** What a converted model and its original are both given, to see that they say the same. */

/** Values in [0, 1] that exercise a network, the same each time. */
export const probeInput = (length: number): Float32Array =>
  Float32Array.from({ length }, (_, i) => (Math.imul(i, 2654435761) >>> 24) / 255);

/** Sound that a network now and then takes for a voice, in samples at 16 kHz: syllables of two a second. */
export function probeVoice(length: number): Float32Array {
  return Float32Array.from({ length }, (_, i) => {
    const seconds = i / 16000;
    const wave = (hertz: number) => Math.sin(2 * Math.PI * hertz * seconds);
    let sum = 0;
    for (let overtone = 1; overtone <= 24; overtone++) {
      const vowel = 0.6 + 0.4 * Math.sin(1.3 * overtone + 6 * seconds);
      sum += (vowel / overtone) * Math.sin(2 * Math.PI * overtone * (110 * seconds + 3 * wave(2.2)));
    }
    return 0.15 * sum * Math.max(0, wave(2));
  });
}

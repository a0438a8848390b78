import { usePreferences } from './preferences.ts';

/** What can be heard: a moment of the run, a limit that was crossed, or one that is not read any more. */
export type Cue = 'ready' | 'go' | 'lift' | 'result' | 'stop' | 'unread';

/** Tones of each cue: pitch in Hz and length in s, one after the other. Told apart by number and pitch, not by loudness. */
const tones: Record<Cue, readonly (readonly [hz: number, s: number])[]> = {
  ready: [[660, 0.12]],
  go: [
    [660, 0.1],
    [990, 0.2],
  ],
  lift: [
    [990, 0.1],
    [990, 0.1],
    [660, 0.25],
  ],
  result: [
    [520, 0.1],
    [660, 0.1],
    [780, 0.18],
  ],
  unread: [
    [440, 0.3],
    [330, 0.3],
  ],
  stop: [
    [1400, 0.16],
    [700, 0.16],
    [1400, 0.16],
    [700, 0.16],
    [1400, 0.16],
    [700, 0.16],
  ],
};
const gapS = 0.05;
const loudness = 0.35;

let context: AudioContext | undefined;

/** Makes a cue heard as the operator has chosen: a row of tones, or words. */
export function sound(cue: Cue, words: string): void {
  const { cues } = usePreferences.getState();
  if (cues === 'off') return;
  // Where nothing can be heard, as in a test, it can be read here.
  document.documentElement.dataset.lastCue = `${cue}: ${words}`;
  if (cues === 'spoken' && 'speechSynthesis' in window && speechSynthesis.getVoices().length > 0) {
    if (cue === 'stop') speechSynthesis.cancel();
    speechSynthesis.speak(new SpeechSynthesisUtterance(words));
    return;
  }
  // A browser without voices is not silent.
  play(cue);
}

function play(cue: Cue): void {
  try {
    context ??= new AudioContext();
    void context.resume();
    let at = context.currentTime;
    for (const [hz, s] of tones[cue]) {
      const tone = context.createOscillator();
      const level = context.createGain();
      tone.frequency.value = hz;
      level.gain.setValueAtTime(0, at);
      level.gain.linearRampToValueAtTime(loudness, at + 0.01);
      level.gain.setValueAtTime(loudness, at + s - 0.02);
      level.gain.linearRampToValueAtTime(0, at + s);
      tone.connect(level).connect(context.destination);
      tone.start(at);
      tone.stop(at + s);
      at += s + gapS;
    }
  } catch {
    // No sound card, no sound: everything that is heard is on the screen as well.
  }
}

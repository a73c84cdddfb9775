import { ref } from 'vue'

/** Sound made in the browser, so that it needs no network. A browser lets it sound only after a tap. */
const ready = ref(false)
let context: AudioContext | undefined

/** How each level sounds: how many tones, how high, how loud. Nearer ones are louder. */
const TONES: Record<string, { count: number; hertz: number; gain: number }> = {
  look: { count: 2, hertz: 660, gain: 0.18 },
  due: { count: 2, hertz: 740, gain: 0.3 },
  act: { count: 3, hertz: 784, gain: 0.4 },
  ask: { count: 2, hertz: 700, gain: 0.4 },
  closer: { count: 3, hertz: 880, gain: 0.5 },
  full: { count: 4, hertz: 988, gain: 0.7 },
  out: { count: 6, hertz: 1046, gain: 0.9 },
}

/** Let sound be made: called by any tap or key. */
function arm() {
  try {
    context ??= new AudioContext()
    void context.resume().then(() => (ready.value = context?.state === 'running'))
  } catch {
    ready.value = false // no sound on this machine: the screen still calls
  }
}

function beep(sound: AudioContext, at: number, hertz: number, loud: number) {
  const tone = sound.createOscillator()
  const gain = sound.createGain()
  tone.type = 'triangle'
  tone.frequency.value = hertz
  gain.gain.setValueAtTime(0.0001, at)
  gain.gain.exponentialRampToValueAtTime(loud, at + 0.02)
  gain.gain.exponentialRampToValueAtTime(0.0001, at + 0.24)
  tone.connect(gain).connect(sound.destination)
  tone.start(at)
  tone.stop(at + 0.24)
}

/** A telephone shakes once for every tone. */
function shake(count: number) {
  if ('vibrate' in navigator) navigator.vibrate(Array.from({ length: 2 * count - 1 }, () => 140))
}

function ring(level: string, words: string) {
  const tones = TONES[level]
  if (tones) shake(tones.count)
  if (tones && context?.state === 'running') {
    for (let i = 0; i < tones.count; i++)
      beep(context, context.currentTime + i * 0.28, tones.hertz * (i % 2 ? 0.75 : 1), tones.gain)
  }
  speak(words)
}

/** Only voices of this machine: none may call a server. */
function speak(words: string) {
  if (!('speechSynthesis' in window) || !words) return
  const voices = window.speechSynthesis.getVoices()
  const local = voices.find((voice) => voice.localService && voice.lang.startsWith('en'))
  if (!local) return
  const said = new SpeechSynthesisUtterance(words)
  said.voice = local
  window.speechSynthesis.cancel()
  window.speechSynthesis.speak(said)
}

export function useSound() {
  return { ready, arm, ring }
}

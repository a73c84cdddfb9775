import { onBeforeUnmount, ref } from 'vue'

/** Sound made in the browser, so that it needs no network. A browser lets it sound only after a tap. */
export function useAlarm() {
  let context: AudioContext | undefined
  const ready = ref(false)

  function arm() {
    try {
      context ??= new AudioContext()
      void context.resume().then(() => (ready.value = context?.state === 'running'))
    } catch {
      ready.value = false // no sound on this machine: the screen still calls
    }
  }

  function beep(at: number, hertz: number, seconds: number) {
    if (!context) return
    const tone = context.createOscillator()
    const gain = context.createGain()
    tone.type = 'triangle'
    tone.frequency.value = hertz
    gain.gain.setValueAtTime(0.0001, at)
    gain.gain.exponentialRampToValueAtTime(0.5, at + 0.02)
    gain.gain.exponentialRampToValueAtTime(0.0001, at + seconds)
    tone.connect(gain).connect(context.destination)
    tone.start(at)
    tone.stop(at + seconds)
  }

  /** Ring for a level: one soft pair for a look, more and higher towards the end. */
  function ring(level: string, words: string) {
    if (context && context.state === 'running') {
      const t = context.currentTime
      const count = { look: 2, coat: 2, closer: 3, full: 4, out: 6, ask: 2 }[level] ?? 2
      const hertz = level === 'out' || level === 'full' ? 1046 : 784
      for (let i = 0; i < count; i++) beep(t + i * 0.28, i % 2 ? hertz * 0.75 : hertz, 0.24)
    }
    speak(words)
  }

  function speak(words: string) {
    if (!('speechSynthesis' in window) || !words) return
    const local = window.speechSynthesis
      .getVoices()
      .find((voice) => voice.localService && voice.lang.startsWith('en'))
    if (!local) return // only voices of this machine: none may call a server
    const said = new SpeechSynthesisUtterance(words)
    said.voice = local
    window.speechSynthesis.cancel()
    window.speechSynthesis.speak(said)
  }

  onBeforeUnmount(() => void context?.close())
  return { ready, arm, ring }
}

/** Two soft tones, a fifth apart. Where the browser lets no page sound before it was touched, there is none. */
export function chime() {
  const audio = new AudioContext()
  const tones = [523.25, 783.99] // C5 and G5, in Hz
  tones.forEach((tone, i) => {
    const at = audio.currentTime + 0.35 * i
    const [voice, loud] = [audio.createOscillator(), audio.createGain()]
    voice.frequency.value = tone
    loud.gain.setValueAtTime(0, at)
    loud.gain.linearRampToValueAtTime(0.25, at + 0.03)
    loud.gain.exponentialRampToValueAtTime(0.001, at + 1.6)
    voice.connect(loud).connect(audio.destination)
    voice.start(at)
    voice.stop(at + 1.7)
  })
  setTimeout(() => void audio.close(), 3000)
}

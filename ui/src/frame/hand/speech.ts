/** Whether this browser can read aloud. */
export const canSpeak = typeof speechSynthesis !== 'undefined' && typeof SpeechSynthesisUtterance !== 'undefined'

/** Reads words aloud; what was being read stops. A voice of the device is used, so that the words stay on it. */
export function speak(words: string) {
  if (!canSpeak) return
  speechSynthesis.cancel()
  const said = new SpeechSynthesisUtterance(words)
  const language = navigator.language.slice(0, 2)
  said.voice = speechSynthesis.getVoices().find((v) => v.localService && v.lang.startsWith(language)) ?? null
  speechSynthesis.speak(said)
}

/** How many samples a second a recording has: enough for speech, and small. */
const RATE = 16_000

/**
 * Makes a WAV file (one channel, 16 bits) of any sound that this browser can hear; throws where it cannot.
 */
export async function toWav(sound: ArrayBuffer): Promise<Blob> {
  const heard = await new OfflineAudioContext(1, 1, RATE).decodeAudioData(sound)
  const frames = Math.max(1, Math.ceil(heard.duration * RATE))
  const mixer = new OfflineAudioContext(1, frames, RATE)
  const source = mixer.createBufferSource()
  source.buffer = heard
  source.connect(mixer.destination)
  source.start()
  const samples = (await mixer.startRendering()).getChannelData(0)
  const file = new DataView(new ArrayBuffer(44 + 2 * samples.length))
  const words = (at: number, text: string) => [...text].forEach((c, i) => file.setUint8(at + i, c.charCodeAt(0)))
  words(0, 'RIFF')
  file.setUint32(4, 36 + 2 * samples.length, true)
  words(8, 'WAVEfmt ')
  file.setUint32(16, 16, true)
  file.setUint16(20, 1, true)
  file.setUint16(22, 1, true)
  file.setUint32(24, RATE, true)
  file.setUint32(28, 2 * RATE, true)
  file.setUint16(32, 2, true)
  file.setUint16(34, 16, true)
  words(36, 'data')
  file.setUint32(40, 2 * samples.length, true)
  samples.forEach((s, i) => file.setInt16(44 + 2 * i, Math.round(32767 * Math.max(-1, Math.min(1, s))), true))
  return new Blob([file], { type: 'audio/wav' })
}

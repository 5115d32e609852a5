import { Mic, MicOff } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'

/** What we use of the browser's speech recognition; it is not in TypeScript's own types. */
type Recognition = {
  lang: string
  start: () => void
  stop: () => void
  onresult: ((e: { results: ArrayLike<ArrayLike<{ transcript: string }>> }) => void) | null
  onerror: (() => void) | null
  onend: (() => void) | null
}
type Browser = { SpeechRecognition?: new () => Recognition; webkitSpeechRecognition?: new () => Recognition }

/** Turns speech into words where the browser can; where it turns out that it cannot, the button goes. */
export default function Dictate({ onWords }: { onWords: (words: string) => void }) {
  const { t } = useTranslation()
  const [state, setState] = useState<'ready' | 'listening' | 'cannot'>('ready')
  const listening = useRef<Recognition | null>(null)
  useEffect(() => () => listening.current?.stop(), [])
  if (state === 'cannot') return null
  function toggle() {
    if (listening.current) {
      listening.current.stop()
      return
    }
    const { SpeechRecognition, webkitSpeechRecognition } = window as Browser
    const Recogniser = SpeechRecognition ?? webkitSpeechRecognition
    if (!Recogniser) return
    const hears = new Recogniser()
    hears.lang = navigator.language
    hears.onresult = ({ results }) => {
      const last = results[results.length - 1]?.[0]
      if (last) onWords(last.transcript.trim())
    }
    hears.onerror = () => setState('cannot')
    hears.onend = () => {
      listening.current = null
      setState((s) => (s === 'cannot' ? s : 'ready'))
    }
    listening.current = hears
    setState('listening')
    hears.start()
  }
  const on = state === 'listening'
  const name = t(on ? 'ledge.dictateStop' : 'ledge.dictate')
  return (
    <button
      type="button"
      data-part="dictate"
      aria-label={name}
      title={name}
      aria-pressed={on}
      className={`absolute -end-3 -top-3 grid size-10 place-items-center rounded-full border-2 border-paper ${on ? 'bg-glow text-paper' : 'bg-dusk text-paper'}`}
      onClick={toggle}
    >
      {on ? <MicOff size={20} aria-hidden="true" /> : <Mic size={20} aria-hidden="true" />}
    </button>
  )
}

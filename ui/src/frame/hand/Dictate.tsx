import { Mic, MicOff } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'

/** What we use of the browser's speech recognition; it is not in TypeScript's own types. */
type Recognition = {
  lang: string
  start: () => void
  stop: () => void
  onresult: ((e: { results: ArrayLike<ArrayLike<{ transcript: string }>> }) => void) | null
  onerror: ((e: { error?: string }) => void) | null
  onend: (() => void) | null
}
type Browser = { SpeechRecognition?: new () => Recognition; webkitSpeechRecognition?: new () => Recognition }

/** Why a browser will not hear anything, however often it is asked. */
const forGood = ['not-allowed', 'service-not-allowed', 'language-not-supported', 'audio-capture']

/** Turns speech into words where the browser can; where it turns out that it never will, the button goes. */
export default function Dictate({ onWords }: { onWords: (words: string) => void }) {
  const { t } = useTranslation()
  const [state, setState] = useState<'ready' | 'listening' | 'nothing' | 'cannot'>('ready')
  const listening = useRef<Recognition | null>(null)
  useEffect(() => () => listening.current?.stop(), [])
  // What is heard goes to the writing as it is when it is heard.
  const told = useRef(onWords)
  useEffect(() => {
    told.current = onWords
  })
  if (state === 'cannot')
    return (
      <span role="status" className="block text-[0.7em] text-slate">
        {t('ledge.cannotDictate')}
      </span>
    )
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
      if (last) told.current(last.transcript.trim())
    }
    hears.onerror = ({ error }) => {
      if (error !== 'aborted') setState(forGood.includes(error ?? '') ? 'cannot' : 'nothing')
    }
    hears.onend = () => {
      listening.current = null
      setState((s) => (s === 'listening' ? 'ready' : s))
    }
    listening.current = hears
    setState('listening')
    hears.start()
  }
  const on = state === 'listening'
  const name = t(on ? 'ledge.dictateStop' : 'ledge.dictate')
  return (
    <>
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
      <span role="status" className={state === 'nothing' ? 'block text-[0.7em] text-slate' : 'sr-only'}>
        {state === 'nothing' && t('ledge.heardNothing')}
      </span>
    </>
  )
}

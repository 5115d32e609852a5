import { Maximize } from 'lucide-react'
import { useEffect, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { useTitle } from '../kit/hooks/useTitle'
import { FrontScreen } from '../shown/FrontScreen'
import { useChime } from '../shown/useChime'
import '../words/windows'
import { FrontLesson } from '../wire/front'
import { useLeft } from '../wire/hooks/useClock'
import { BenchProvider, useLessonFrom, useLessonState } from '../wire/hooks/useLesson'
import { speak } from '../words/words'
import { Waiting } from './Waiting'

/** The front screen of a lesson: for the projector, with no control but full screen. */
export function FrontPage() {
  const { session } = useParams()
  return session ? <Showing key={session} session={session} /> : <Waiting />
}

function Showing({ session }: { session: string }) {
  const lesson = useLessonFrom(() => new FrontLesson(session))
  return (
    <BenchProvider value={lesson}>
      <Page session={session} />
    </BenchProvider>
  )
}

function Page({ session }: { session: string }) {
  const { t } = useTranslation()
  useTitle(t('front.title'))
  const closed = useLessonState((s) => s.closed)
  const timer = useLessonState((s) => s.front?.timer)
  const left = useLeft(timer)
  useChime(timer, left)
  const language = useLessonState((s) => s.look?.language)
  useEffect(() => {
    if (language) void speak(language)
  }, [language])
  if (closed) return <Waiting gone />
  return (
    <main className="relative h-dvh w-full">
      <FrontScreen session={session} />
      <FullScreen />
    </main>
  )
}

const SHOWN_MS = 3000

/** Fills the screen; in sight while the mouse moves or the key reaches it. */
function FullScreen() {
  const { t } = useTranslation()
  const [full, setFull] = useState(false)
  const [seen, see] = useState(true)
  useEffect(() => {
    let timer = window.setTimeout(() => see(false), SHOWN_MS)
    const moved = () => {
      see(true)
      clearTimeout(timer)
      timer = window.setTimeout(() => see(false), SHOWN_MS)
    }
    const changed = () => setFull(document.fullscreenElement !== null)
    addEventListener('pointermove', moved)
    document.addEventListener('fullscreenchange', changed)
    return () => {
      clearTimeout(timer)
      removeEventListener('pointermove', moved)
      document.removeEventListener('fullscreenchange', changed)
    }
  }, [])
  if (full) return null
  return (
    <button
      type="button"
      className={`absolute end-4 bottom-4 inline-flex items-center gap-2 rounded-xl border border-edge bg-paper px-4 py-2.5 font-semibold shadow focus-visible:opacity-100 ${seen ? '' : 'opacity-0'}`}
      onClick={() => void document.documentElement.requestFullscreen().catch(() => setFull(false))}
    >
      <Maximize size={18} aria-hidden="true" />
      {t('front.full')}
    </button>
  )
}

import { ChevronLeft, ChevronRight, Presentation, Shuffle, X } from 'lucide-react'
import { useEffect, useEffectEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { useLessonState } from '../../wire/useLesson'
import { useStaffLesson } from '../../wire/useStaff'

/** Frames of students or groups in a row, to be gone through on the front screen. */
export type Gallery = { frame: string; stops: Array<{ owner: string; name: string }> }

type Props = { gallery: Gallery; onChange: (gallery: Gallery | null) => void }

const inField = (at: EventTarget | null) =>
  at instanceof HTMLElement && at.closest('input, textarea, select, [contenteditable], [role=dialog]') !== null

/** A walk through frames on the front screen; Page Down and Page Up, as a clicker sends them, lead on and back. */
export function GalleryBar({ gallery, onChange }: Props) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const [at, setAt] = useState(0)
  const nameless = useLessonState((s) => s.staff?.state.nameless ?? false)
  const shown = useLessonState((s) => s.staff?.state.front.owners?.join() ?? '')
  const { stops, frame } = gallery
  const stop = stops[at]!
  async function show(next: number, among = stops) {
    const to = among[(next + among.length) % among.length]!
    if (await lesson.give({ kind: 'front', front: { kind: 'sheets', frame, owners: [to.owner] } }))
      setAt((next + among.length) % among.length)
  }
  const key = useEffectEvent((e: KeyboardEvent) => {
    const by = e.key === 'PageDown' ? 1 : e.key === 'PageUp' ? -1 : 0
    if (!by || inField(e.target) || e.altKey || e.ctrlKey || e.metaKey) return
    e.preventDefault()
    void show(at + by)
  })
  const begin = useEffectEvent(
    () => void lesson.give({ kind: 'front', front: { kind: 'sheets', frame, owners: [stops[0]!.owner] } }),
  )
  useEffect(() => {
    begin()
    addEventListener('keydown', key)
    return () => removeEventListener('keydown', key)
  }, [])
  function mix() {
    const mixed = [...stops]
    for (let i = mixed.length - 1; i > 0; i--) {
      const j = Math.floor(Math.random() * (i + 1))
      ;[mixed[i], mixed[j]] = [mixed[j]!, mixed[i]!]
    }
    onChange({ ...gallery, stops: mixed })
    void show(0, mixed)
  }
  async function end() {
    if (await lesson.give({ kind: 'front', front: { kind: 'frame' } })) onChange(null)
  }
  return (
    <section
      aria-label={t('gallery.title')}
      data-part="gallery"
      className="flex flex-wrap items-center gap-2 border-b border-dusk bg-dusk-soft px-4 py-2"
    >
      <Presentation size={18} aria-hidden="true" className="text-dusk" />
      <p role="status" className="min-w-0 truncate font-semibold text-dusk">
        {t('gallery.at', { n: at + 1, of: stops.length, name: stop.name })}
        {shown !== stop.owner && <span className="font-normal text-slate"> · {t('gallery.elsewhere')}</span>}
      </p>
      <span className="text-sm text-slate">{t(nameless ? 'gallery.nameless' : 'gallery.named')}</span>
      <span className="grow" />
      <Button onClick={() => void show(at - 1)}>
        <ChevronLeft size={17} aria-hidden="true" className="rtl:-scale-x-100" />
        {t('monitor.stepBack')}
      </Button>
      <Button look="main" onClick={() => void show(at + 1)} title={t('gallery.keys')}>
        {t('monitor.stepOn')}
        <ChevronRight size={17} aria-hidden="true" className="rtl:-scale-x-100" />
      </Button>
      <Button onClick={mix}>
        <Shuffle size={16} aria-hidden="true" />
        {t('gallery.mix')}
      </Button>
      <Button onClick={() => void end()}>
        <X size={16} aria-hidden="true" />
        {t('gallery.end')}
      </Button>
    </section>
  )
}

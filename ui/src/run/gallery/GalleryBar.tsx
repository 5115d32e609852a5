import { ChevronLeft, ChevronRight, Presentation, Shapes, Shuffle, X } from 'lucide-react'
import { useEffect, useEffectEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { inField } from '../../kit/hooks/inField'
import { call, codeOf } from '../../wire/http'
import type { SetWalk, Varied, Walk } from '../../wire/types.gen'
import { useLessonState } from '../../wire/hooks/useLesson'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import { OnDevices } from './OnDevices'
import { mixed, whose, type Gallery } from './stops'

type Props = {
  gallery: Gallery
  /** The walk that goes on on the students' devices, if one does. */
  walk?: Walk
  onChange: (gallery: Gallery | null) => void
}

/**
 * A walk through frames, on the front screen and if wished on the students' devices; Page Down and Page Up, as a
 * clicker sends them, lead on and back.
 */
export function GalleryBar({ gallery, walk, onChange }: Props) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const [here, setHere] = useState(0)
  const nameless = useLessonState((s) => s.staff?.state.nameless ?? false)
  const people = useLessonState((s) => s.people)
  const shown = useLessonState((s) => s.staff?.state.front.owners?.join() ?? '')
  const { stops, frame } = gallery
  const at = Math.min(walk && !walk.own ? walk.at : here, stops.length - 1)
  const stop = stops[at]!
  const owners = (of: Gallery['stops']) => of.map((s) => s.owner)

  /** Leads to a stop: in front, and on the devices where these follow. */
  async function show(next: number, among = stops) {
    const to = (next + among.length) % among.length
    const done =
      walk && !walk.own
        ? await give({ stops: owners(among), at: to })
        : await lesson.give({ kind: 'front', front: { kind: 'sheets', frame, owners: [among[to]!.owner] } })
    if (done) setHere(to)
    return done
  }
  /** Changes the walk on the devices. */
  const give = (change: Partial<SetWalk>) =>
    lesson.give({
      kind: 'walk',
      walk: {
        frame,
        stops: owners(stops),
        at,
        own: walk?.own ?? false,
        each: walk?.each ?? 0,
        replies: walk?.replies ?? false,
        ...change,
      },
    })
  const key = useEffectEvent((e: KeyboardEvent) => {
    const by = e.key === 'PageDown' ? 1 : e.key === 'PageUp' ? -1 : 0
    if (!by || inField(e.target) || e.altKey || e.ctrlKey || e.metaKey) return
    e.preventDefault()
    void show(at + by)
  })
  const begin = useEffectEvent(() => {
    if (!walk) void lesson.give({ kind: 'front', front: { kind: 'sheets', frame, owners: [stops[0]!.owner] } })
  })
  useEffect(() => {
    begin()
    addEventListener('keydown', key)
    return () => removeEventListener('keydown', key)
  }, [])
  async function among(next: Gallery['stops']) {
    if (walk?.own ? await give({ stops: owners(next) }) : await show(0, next)) onChange({ frame, stops: next })
  }
  async function varied() {
    try {
      const found = await call<Varied>('GET', `/sessions/${lesson.session}/varied?frame=${frame}`)
      if (found.owners.length === 0) lesson.tell('no-such-mark')
      else await among(found.owners.map((owner) => ({ owner, name: whose(owner, people, t) })))
    } catch (error) {
      lesson.tell(codeOf(error))
    }
  }
  async function end() {
    if (walk && !(await lesson.give({ kind: 'walk', walk: { stops: [] } }))) return
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
        {walk?.own
          ? t('gallery.own', { count: stops.length })
          : t(walk ? 'gallery.atAll' : 'gallery.at', { n: at + 1, of: stops.length, name: stop.name })}
        {!walk?.own && shown !== stop.owner && (
          <span className="font-normal text-slate"> · {t('gallery.elsewhere')}</span>
        )}
      </p>
      <span className="text-sm text-slate">{t(nameless ? 'gallery.nameless' : 'gallery.named')}</span>
      <span className="grow" />
      {!walk?.own && (
        <>
          <Button onClick={() => void show(at - 1)}>
            <ChevronLeft size={17} aria-hidden="true" className="rtl:-scale-x-100" />
            {t('monitor.stepBack')}
          </Button>
          <Button look="main" onClick={() => void show(at + 1)} title={t('gallery.keys')}>
            {t('monitor.stepOn')}
            <ChevronRight size={17} aria-hidden="true" className="rtl:-scale-x-100" />
          </Button>
        </>
      )}
      <OnDevices walk={walk} onGive={(change) => void give(change)} />
      <Button onClick={() => void among(mixed(stops))}>
        <Shuffle size={16} aria-hidden="true" />
        {t('gallery.mix')}
      </Button>
      <Button onClick={() => void varied()} title={t('gallery.variedText')}>
        <Shapes size={16} aria-hidden="true" />
        {t('gallery.varied')}
      </Button>
      <Button onClick={() => void end()}>
        <X size={16} aria-hidden="true" />
        {t('gallery.end')}
      </Button>
    </section>
  )
}

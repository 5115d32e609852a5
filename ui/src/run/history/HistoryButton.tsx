import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { History, Pause, Play, Presentation } from 'lucide-react'
import { useEffect, useEffectEvent, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Thumbnail } from '../../frame/paint/Thumbnail'
import { Button } from '../../kit/Button'
import { Refusal } from '../../kit/Refusal'
import { Dialog } from '../../kit/windows/Dialog'
import { call, codeOf } from '../../wire/http'
import type { Element, Frame, Moment, Timeline } from '../../wire/types.gen'
import { useLessonState } from '../../wire/hooks/useLesson'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import { clock } from '../../words/words'

/** How many changes are played in a second. */
const speeds = [2, 10, 50]
const nothing: readonly Element[] = []

type Props = { frame: Frame; sheet: string }

/** What happened on a frame, played like a film, and the way back to any moment of it. */
export function HistoryButton(props: Props) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  return (
    <>
      <Button onClick={() => setOpen(true)}>
        <History size={17} aria-hidden="true" />
        {t('history.button')}
      </Button>
      <Dialog wide open={open} onOpenChange={setOpen} title={t('history.title')} text={t('history.text')}>
        <Film {...props} onDone={() => setOpen(false)} />
      </Dialog>
    </>
  )
}

/** The times of changes, of which the time since the one before is known. */
function times(since: number[]): number[] {
  const at: number[] = []
  for (const more of since) at.push((at.at(-1) ?? 0) + more)
  return at
}

function Film({ frame, sheet, onDone }: Props & { onDone: () => void }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const people = useLessonState((s) => s.people)
  const owner = useLessonState((s) => s.sheets.find((x) => x.sheet === sheet)?.owner)
  /** Shows the class how it was beside how it is. */
  async function before(to: number) {
    if (owner && (await lesson.give({ kind: 'front', front: { kind: 'past', frame: frame.id, owners: [owner], to } })))
      onDone()
  }
  const at = `/sessions/${lesson.session}/past`
  const line = useQuery({
    queryKey: ['past', sheet],
    queryFn: () => call<Timeline>('GET', `${at}?sheet=${sheet}`),
    gcTime: 0,
    refetchOnWindowFocus: false,
  })
  const all = line.data?.at.length ?? 0
  const [stop, setStop] = useState<number | null>(null)
  const [speed, setSpeed] = useState(speeds[1]!)
  const [playing, play] = useState(false)
  const [who, only] = useState('')
  const n = stop ?? all
  const moment = useQuery({
    queryKey: ['moment', sheet, n],
    queryFn: () => call<Moment>('GET', `${at}/${n}?sheet=${sheet}`),
    enabled: line.isSuccess,
    placeholderData: keepPreviousData,
    gcTime: 0,
    refetchOnWindowFocus: false,
  })
  // The next picture is asked for when the one before is there: a slow network plays more slowly.
  const ready = !moment.isPlaceholderData && moment.isSuccess
  const step = useEffectEvent(() => {
    if (n + 1 >= all) play(false)
    setStop(Math.min(n + Math.max(1, Math.round(speed / 10)), all))
  })
  useEffect(() => {
    if (!playing || !ready) return
    const next = setTimeout(() => step(), 1000 / Math.min(speed, 10))
    return () => clearTimeout(next)
  }, [playing, ready, n, speed])
  const when = useMemo(() => times(line.data?.at ?? []), [line.data])
  const marks = moment.data?.marks ?? nothing
  const shown = useMemo(() => (who ? marks.filter((m) => m.author === who) : marks), [marks, who])
  if (line.isError) return <Refusal code={codeOf(line.error)} />
  if (!line.data) return <p role="status">{t('loading')}</p>
  if (all === 0) return <p>{t('history.none')}</p>
  const nameOf = (id: string) => people.get(id)?.name ?? t('frame.teacher')
  const by = n > 0 ? nameOf(line.data.people[line.data.by[n - 1]!] ?? '') : ''
  const said = n > 0 ? t('history.at', { n, of: all, time: clock(when[n - 1]!), name: by }) : t('history.begin')
  return (
    <div className="flex flex-col gap-3">
      <div className="mx-auto w-full max-w-3xl overflow-hidden rounded-xl border border-line">
        <Thumbnail frame={frame} marks={shown} width={760} label={t('history.picture')} />
      </div>
      <input
        type="range"
        min={0}
        max={all}
        value={n}
        aria-label={t('history.moment')}
        aria-valuetext={said}
        className="w-full accent-dusk"
        onChange={(e) => {
          play(false)
          setStop(Number(e.target.value))
        }}
      />
      <p role="status" className="text-slate">
        {playing ? t('history.playing') : said}
      </p>
      <Refusal code={moment.isError ? codeOf(moment.error) : null} />
      <div className="flex flex-wrap items-center gap-2">
        <Button
          onClick={() => {
            if (!playing && n >= all) setStop(0)
            play(!playing)
          }}
        >
          {playing ? <Pause size={17} aria-hidden="true" /> : <Play size={17} aria-hidden="true" />}
          {t(playing ? 'history.pause' : 'history.play')}
        </Button>
        <select
          aria-label={t('history.speed')}
          className="rounded-lg border border-edge bg-paper px-2 py-1.5"
          value={speed}
          onChange={(e) => setSpeed(Number(e.target.value))}
        >
          {speeds.map((s) => (
            <option key={s} value={s}>
              {t('history.perSecond', { count: s })}
            </option>
          ))}
        </select>
        <select
          aria-label={t('history.who')}
          className="max-w-52 rounded-lg border border-edge bg-paper px-2 py-1.5"
          value={who}
          onChange={(e) => only(e.target.value)}
        >
          <option value="">{t('history.everybody')}</option>
          {line.data.people.map((id) => (
            <option key={id} value={id}>
              {nameOf(id)}
            </option>
          ))}
        </select>
        <span className="grow" />
        {n > 0 && n < all && ready && owner && (
          <Button onClick={() => void before(moment.data.seq)}>
            <Presentation size={17} aria-hidden="true" />
            {t('history.before')}
          </Button>
        )}
        {who === '' && n > 0 && n < all && ready && (
          <Button
            look="rose"
            onClick={() => {
              lesson.do(sheet, { kind: 'setBack', setBack: { to: moment.data.seq } })
              onDone()
            }}
          >
            {t('history.back')}
          </Button>
        )}
      </div>
      <p className="text-sm text-slate">{t('history.undo')}</p>
    </div>
  )
}

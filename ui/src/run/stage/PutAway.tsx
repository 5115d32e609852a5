import { isAnswer } from '../../rules/answers'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { textOf } from '../../frame/paint/geometry'
import { nameKey } from '../../frame/marks/useMark'
import { Button } from '../../kit/Button'
import { Dialog } from '../../kit/windows/Dialog'
import { onMark } from '../../rules/apply'
import type { Element, Frame } from '../../wire/types.gen'
import { useCalmState } from '../../wire/hooks/useCalm'
import { useLesson, useLessonState } from '../../wire/hooks/useLesson'
import { isHidden, isRemoved } from '../../rules/standing'
import { useNow } from '../../kit/hooks/useNow'
import { ago } from '../../words/words'

/** Lines that their drawer has rubbed out are left to them. */
const isAway = (m: Element) =>
  !isAnswer(m) && (isHidden(m) || (isRemoved(m) && (m.kind !== 'stroke' || m.standing?.by !== m.author)))

/** How often it is looked what is away. */
const CALM_MS = 300

/** What is hidden or removed on a frame, and the way to bring it back. */
export function PutAway({ frame }: { frame: Frame }) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const [open, setOpen] = useState(false)
  const sheets = useCalmState((s) => s.sheets, CALM_MS)
  const people = useLessonState((s) => s.people)
  const away = sheets
    .filter((s) => s.frame === frame.id)
    .flatMap((s) => s.marks.filter(isAway).map((mark) => ({ mark, sheet: s.sheet })))
    // What left last stands first.
    .sort((a, b) => (b.mark.standing?.at ?? 0) - (a.mark.standing?.at ?? 0))
  const [who, only] = useState('')
  const [since, setSince] = useState(0)
  const now = useNow()
  if (away.length === 0) return null
  const nameOf = (id?: string) => people.get(id ?? '')?.name ?? t('frame.teacher')
  const shown = away.filter(
    ({ mark }) =>
      (!who || (mark.author || 'staff') === who) && (!since || (mark.standing?.at ?? 0) >= now - since * 60_000),
  )
  const seen = shown
  function back(some: typeof away) {
    for (const sheet of new Set(some.map((s) => s.sheet))) {
      const steps = some
        .filter((s) => s.sheet === sheet)
        .map(({ mark }) => onMark(isRemoved(mark) ? 'restore' : 'show', mark.id))
      // Together, so that one undo takes all of it back.
      lesson.do(sheet, ...steps)
    }
    if (some.length === away.length) setOpen(false)
  }
  return (
    <>
      <Button onClick={() => setOpen(true)}>{t('run.putAway', { count: away.length })}</Button>
      <Dialog open={open} onOpenChange={setOpen} title={t('run.putAwayTitle')} text={t('run.putAwayText')}>
        <p className="mb-2 flex flex-wrap items-center gap-2">
          <label className="flex items-center gap-2">
            {t('run.of')}
            <select
              className="max-w-52 rounded-lg border border-edge bg-paper px-2 py-1.5"
              value={who}
              onChange={(e) => only(e.target.value)}
            >
              <option value="">{t('run.everybody')}</option>
              {[...new Set(away.map(({ mark }) => mark.author ?? ''))].map((id) => (
                <option key={id} value={id || 'staff'}>
                  {nameOf(id)}
                </option>
              ))}
            </select>
          </label>
          <select
            aria-label={t('run.when')}
            className="rounded-lg border border-edge bg-paper px-2 py-1.5"
            value={since}
            onChange={(e) => setSince(Number(e.target.value))}
          >
            {[0, 1, 5, 15].map((m) => (
              <option key={m} value={m}>
                {m === 0 ? t('run.whenever') : t('run.lastMinutes', { count: m })}
              </option>
            ))}
          </select>
          <span className="grow" />
          {seen.length > 1 && (
            <Button onClick={() => back(seen)}>{t('run.bringBackAll', { count: seen.length })}</Button>
          )}
        </p>
        {seen.length === 0 && <p className="text-slate">{t('run.noneAway')}</p>}
        <ul className="flex flex-col gap-2">
          {seen.map(({ mark, sheet }) => (
            <li key={mark.id} className="flex items-center gap-3 rounded-lg border border-line p-2.5">
              <span className="min-w-0 grow break-words">
                <b className="font-semibold">{nameOf(mark.author)}</b>{' '}
                <span className="text-slate">
                  ({isRemoved(mark) ? t('run.removed') : t('run.hidden')},{' '}
                  {ago(mark.standing?.at ?? 0, now) ?? t('run.lastNow')})
                </span>
                <br />
                {textOf(mark) || t(`marks.${nameKey(mark)}`)}
              </span>
              <Button onClick={() => back([{ mark, sheet }])}>{t('run.bringBack')}</Button>
            </li>
          ))}
        </ul>
      </Dialog>
    </>
  )
}

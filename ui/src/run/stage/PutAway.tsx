import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { textOf } from '../../frame/paint/geometry'
import { nameKey } from '../../frame/marks/useMark'
import { Button } from '../../kit/Button'
import { Dialog } from '../../kit/windows/Dialog'
import { onMark } from '../../rules/apply'
import type { Element, Frame } from '../../wire/types.gen'
import { useLesson, useLessonState } from '../../wire/useLesson'
import { isHidden, isRemoved } from '../../rules/standing'

/** Lines that their drawer has rubbed out are left to them. */
const isAway = (m: Element) =>
  m.kind !== 'answer' && (isHidden(m) || (isRemoved(m) && (m.kind !== 'stroke' || m.standing?.by !== m.author)))

/** What is hidden or removed on a frame, and the way to bring it back. */
export function PutAway({ frame }: { frame: Frame }) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const [open, setOpen] = useState(false)
  const sheets = useLessonState((s) => s.sheets)
  const people = useLessonState((s) => s.people)
  const away = sheets
    .filter((s) => s.frame === frame.id)
    .flatMap((s) => s.marks.filter(isAway).map((mark) => ({ mark, sheet: s.sheet })))
  if (away.length === 0) return null
  return (
    <>
      <Button onClick={() => setOpen(true)}>{t('run.putAway', { count: away.length })}</Button>
      <Dialog open={open} onOpenChange={setOpen} title={t('run.putAwayTitle')} text={t('run.putAwayText')}>
        <ul className="flex flex-col gap-2">
          {away.map(({ mark, sheet }) => {
            const name = people.get(mark.author ?? '')?.name ?? t('frame.teacher')
            const kind = isRemoved(mark) ? 'restore' : 'show'
            return (
              <li key={mark.id} className="flex items-center gap-3 rounded-lg border border-line p-2.5">
                <span className="min-w-0 grow break-words">
                  <b className="font-semibold">{name}</b>{' '}
                  <span className="text-slate">({isRemoved(mark) ? t('run.removed') : t('run.hidden')})</span>
                  <br />
                  {textOf(mark) || t(`marks.${nameKey(mark)}`)}
                </span>
                <Button
                  onClick={() => {
                    lesson.do(sheet, onMark(kind, mark.id))
                    if (away.length === 1) setOpen(false)
                  }}
                >
                  {t('run.bringBack')}
                </Button>
              </li>
            )
          })}
        </ul>
      </Dialog>
    </>
  )
}

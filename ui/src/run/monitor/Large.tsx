import { ChevronLeft, ChevronRight } from 'lucide-react'
import { useNow } from '../../wire/hooks/useClock'
import { useEffect, useEffectEvent, useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { answersIn, isAnswer } from '../../rules/answers'
import { PollCard } from '../../polls/PollCard'
import { Remarks, remarksOn } from '../../frame/Remarks'
import { Workplace } from '../../frame/Workplace'
import { Button } from '../../kit/Button'
import { isRemoved } from '../../rules/standing'
import type { Element, Frame } from '../../wire/types.gen'
import { useLessonState } from '../../wire/hooks/useLesson'
import { ClearMenu } from '../stage/ClearMenu'
import { HistoryButton } from '../history/HistoryButton'
import { Moderate } from '../stage/Moderate'
import { Spread } from '../stage/Spread'
import { StackButton } from '../stage/StackButton'
import type { Part } from './parts'

const nothing: readonly Element[] = []

type Props = {
  part: Part
  frame: Frame
  onFront: () => void
  /** Opens the part so many places further on; undefined where there is none. */
  onStep: (by: 1 | -1) => void
  /** Which of how many it is, from 1. */
  at: number
  of: number
}

/** One part large, to look at and to write on; the arrow keys lead to the next from beside the frame. */
export function Large({ part, frame, onFront, onStep, at, of }: Props) {
  const { t } = useTranslation()
  const sheets = useLessonState((s) => s.sheets)
  const sheet = sheets.find((s) => s.frame === frame.id && s.owner === part.owner)
  // Of the class's frame only what one student made; else all that lies on the frame, also the teacher's.
  const shared = frame.arrangement === 'class'
  const marks = useMemo(() => {
    const all = shared ? sheets.filter((s) => s.frame === frame.id).flatMap((s) => s.marks) : (sheet?.marks ?? nothing)
    return all.filter((m) => !isRemoved(m) && (!shared || m.author === part.key))
  }, [sheets, sheet?.marks, shared, frame.id, part.key])
  const remarks = shared ? [] : remarksOn(marks, 'staff')
  const polls = useNow(useLessonState((s) => s.staff?.state.polls))
  return (
    <div className="flex h-[72vh] flex-col">
      <Steps at={at} of={of} onStep={onStep} />
      <Workplace
        frame={frame}
        sheet={sheet?.sheet ?? null}
        marks={marks.filter((m) => !isAnswer(m) && m.kind !== 'remark')}
        me="staff"
        mayAdd={sheet !== undefined}
        poll={(mark) => (
          <PollCard
            mark={mark}
            phase="closed"
            given={answersIn(marks, mark.id, polls?.[mark.id]?.round ?? 1)[0]}
            onFrame
          />
        )}
        more={(selected) =>
          sheet &&
          (selected ? (
            <Moderate mark={selected} sheet={sheet.sheet} />
          ) : (
            <>
              <StackButton />
              {!frame.layout.columns?.length && <Spread sheet={sheet.sheet} marks={marks} />}
              {!shared && <HistoryButton frame={frame} sheet={sheet.sheet} />}
              <ClearMenu sheet={sheet.sheet} marks={marks} />
              {!shared && <Button onClick={onFront}>{t('front.this')}</Button>}
            </>
          ))
        }
      />
      {remarks.length > 0 && sheet && (
        <div className="mt-2 max-h-40 shrink-0 overflow-auto rounded-xl bg-mist p-2">
          <h3 className="mb-1 font-semibold">{t('remarks.title')}</h3>
          <Remarks sheet={sheet.sheet} remarks={remarks} me="staff" may={false} />
        </div>
      )}
    </div>
  )
}

/** To the next and the one before. */
function Steps({ at, of, onStep }: Pick<Props, 'at' | 'of' | 'onStep'>) {
  const { t } = useTranslation()
  const step = useEffectEvent((e: KeyboardEvent) => {
    const by = e.key === 'ArrowRight' ? 1 : e.key === 'ArrowLeft' ? -1 : 0
    // On the frame and in its tools these keys do something else.
    const free =
      e.target === document.body ||
      (e.target as HTMLElement).closest('[data-part=steps], [role=dialog] > *:first-child')
    if (!by || !free || e.altKey || e.ctrlKey || e.metaKey) return
    e.preventDefault()
    onStep(by)
  })
  useEffect(() => {
    addEventListener('keydown', step)
    return () => removeEventListener('keydown', step)
  }, [])
  return (
    <div data-part="steps" className="mb-2 flex items-center gap-2">
      <Button onClick={() => onStep(-1)} disabled={of < 2}>
        <ChevronLeft size={17} aria-hidden="true" className="rtl:-scale-x-100" />
        {t('monitor.stepBack')}
      </Button>
      <Button data-look="main" onClick={() => onStep(1)} disabled={of < 2}>
        {t('monitor.stepOn')}
        <ChevronRight size={17} aria-hidden="true" className="rtl:-scale-x-100" />
      </Button>
      <span role="status" className="text-sm text-slate tabular-nums">
        {t('monitor.at', { n: at, of })}
      </span>
    </div>
  )
}

import { Tabs } from 'radix-ui'
import { useCallback, useEffect, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import type { Staff } from '../../wire/lesson'
import type { Front } from '../../wire/types.gen'
import { useLesson, useLessonState } from '../../wire/hooks/useLesson'
import { Door } from './Door'
import { People } from './People'
import { placeOf } from '../places'
import { HelpList } from './HelpList'
import { PickSomebody } from './PickSomebody'
import { Questions } from './Questions'
import { Queue } from '../steer/Queue'

type Props = { staff: Staff; onLook: (student: string, frame: string) => void; onFront: (show: Front) => void }

/** Beside the frame: who waits at the door and who needs help, always; the students, or their questions. */
export function Side({ staff, onLook, onFront }: Props) {
  const { t } = useTranslation()
  const waiting = useLessonState((s) => (s.said.all?.questions ?? []).filter((q) => !q.ticked && !q.hidden).length)
  const lesson = useLesson()
  // The same function all the time, so that no row is painted anew for it.
  const latest = useRef({ staff, onLook })
  useEffect(() => {
    latest.current = { staff, onLook }
  })
  const look = useCallback(
    (id: string) => {
      const person = lesson.state.getState().people.get(id)
      const { staff: now, onLook: go } = latest.current
      if (person) go(id, placeOf(now.board, now.state, person))
    },
    [lesson],
  )
  const tab =
    'grow rounded-lg px-2 py-1.5 text-slate hover:bg-mist data-[state=active]:bg-dusk-soft data-[state=active]:font-semibold data-[state=active]:text-dusk'
  return (
    <Tabs.Root defaultValue="people" className="flex min-h-0 flex-col gap-2 border-s border-line bg-paper p-3" asChild>
      <aside aria-label={t('run.side')}>
        <h2 className="sr-only">{t('run.side')}</h2>
        <Door waiting={staff.state.waiting ?? []} />
        <Queue staff={staff} />
        <HelpList onLook={look} />
        <Tabs.List className="flex gap-1" aria-label={t('run.side')}>
          <Tabs.Trigger value="people" className={tab}>
            {t('run.people')}
          </Tabs.Trigger>
          <Tabs.Trigger value="questions" className={tab}>
            {t('voices.title')}{' '}
            {waiting > 0 && (
              <span className="ms-1 rounded-full bg-dusk px-1.5 text-[13px] text-paper tabular-nums">{waiting}</span>
            )}
          </Tabs.Trigger>
        </Tabs.List>
        <Tabs.Content value="people" className="flex min-h-0 grow flex-col gap-2" data-part="people">
          <People staff={staff} onLook={look} />
          <PickSomebody onFront={onFront} />
        </Tabs.Content>
        <Tabs.Content value="questions" className="flex min-h-0 grow flex-col gap-2">
          <Questions onFront={onFront} />
        </Tabs.Content>
      </aside>
    </Tabs.Root>
  )
}

import { MessageSquare } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import type { Told as Word } from '../wire/types.gen'
import { useLesson } from '../wire/hooks/useLesson'

/** What the teacher has told this student alone, until they have read it. */
export default function Told({ told }: { told: Word[] }) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const until = Math.max(...told.map((w) => w.at))
  return (
    <div
      data-part="told"
      className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-dusk bg-dusk-soft px-4 py-2 text-dusk"
    >
      <MessageSquare size={20} aria-hidden="true" className="shrink-0" />
      <ul className="min-w-0 grow">
        {told.map((w) => (
          <li key={w.at}>
            <b dir="auto">{w.text}</b>
            {w.about && <span className="block text-sm text-slate">{t('student.toldAbout', { text: w.about })}</span>}
          </li>
        ))}
      </ul>
      <Button onClick={() => void lesson.say({ kind: 'heard', heard: { until } })}>{t('student.heard')}</Button>
    </div>
  )
}

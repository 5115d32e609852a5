import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { Dialog } from '../../kit/windows/Dialog'
import type { PickPicture } from '../../polls/editors/props'
import { QuestionFields } from '../../polls/editors/QuestionFields'
import { TryAnswer } from '../../polls/editors/TryAnswer'
import { whole } from '../../polls/editors/whole'
import type { Element, Question } from '../../wire/types.gen'
import { LibraryDialog } from '../LibraryDialog'
import { useDeskState } from '../useDesk'
import { useSaving } from '../useSaving'

type Poll = Element & { kind: 'poll' }
/** Others are the questions beside it on its frame. */
type Props = { mark: Poll; others: readonly Poll[]; onSave: (poll: Question) => void; onClose: () => void }

/** Where a question on a frame is written. */
export function PollEditor({ mark, others, onSave, onClose }: Props) {
  const { t } = useTranslation()
  const objectives = useDeskState((s) => s.outline?.objectives ?? [])
  const [poll, setPoll] = useState(mark.poll)
  const [picking, setPicking] = useState<{ done: Parameters<PickPicture>[0] } | null>(null)
  const saved = useRef(JSON.stringify(mark.poll))
  // While a lesson runs, each saving may begin a round: it is saved once, at the end.
  const lesson = useDeskState((s) => s.lesson)
  useSaving(lesson ? null : poll, () => {
    const now = whole(poll)
    if (JSON.stringify(now) === saved.current) return
    saved.current = JSON.stringify(now)
    onSave(now)
  })
  return (
    <Dialog wide={poll.kind === 'places'} open onOpenChange={onClose} title={t('prepare.pollTitle')}>
      <QuestionFields question={poll} onQuestion={setPoll} pick={(done) => setPicking({ done })}>
        {objectives.length > 0 && (
          <fieldset>
            <legend className="mb-1 font-semibold">{t('prepare.asksAbout')}</legend>
            {objectives.map((o) => (
              <label key={o.id} className="flex items-start gap-2 py-0.5">
                <input
                  type="checkbox"
                  className="mt-1 size-4 accent-dusk"
                  checked={poll.objectives?.includes(o.id) ?? false}
                  onChange={(e) => {
                    const others = (poll.objectives ?? []).filter((id) => id !== o.id)
                    setPoll({ ...poll, objectives: e.target.checked ? [...others, o.id] : others })
                  }}
                />
                {o.text}
              </label>
            ))}
          </fieldset>
        )}
        {others.length > 0 && (
          <label className="flex flex-col gap-1">
            <span className="font-semibold">{t('prepare.insteadOf')}</span>
            <select
              className="rounded-lg border border-edge bg-paper px-2 py-1.5"
              value={poll.insteadOf ?? ''}
              onChange={(e) => setPoll({ ...poll, insteadOf: e.target.value || undefined })}
            >
              <option value="">{t('prepare.insteadOfNone')}</option>
              {others.map((o) => (
                <option key={o.id} value={o.id}>
                  {o.poll.text}
                </option>
              ))}
            </select>
            <span className="text-sm text-slate">{t('prepare.insteadOfHelp')}</span>
          </label>
        )}
      </QuestionFields>
      {lesson && <p className="mt-4 rounded-lg bg-amber-soft px-3 py-1.5">{t('prepare.pollAsked')}</p>}
      <div className="mt-4">
        <TryAnswer question={poll} />
      </div>
      <div className="mt-4 flex justify-end">
        <Button look="main" onClick={onClose}>
          {t('prepare.done')}
        </Button>
      </div>
      {picking && (
        <LibraryDialog
          onClose={() => setPicking(null)}
          onPick={(picture) => {
            picking.done(picture)
            setPicking(null)
          }}
        />
      )}
    </Dialog>
  )
}

import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/windows/Dialog'
import { call, codeOf } from '../wire/http'
import type { Code, Rehearse, Started } from '../wire/types.gen'
import { useDesk } from './useDesk'

/** Starts a practice session with a simulated class. */
export function RehearseDialog({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  const desk = useDesk()
  const navigate = useNavigate()
  const [students, setStudents] = useState(12)
  const [busy, setBusy] = useState(false)
  const [problem, setProblem] = useState<Code | null>(null)
  async function start() {
    setBusy(true)
    try {
      await desk.settled()
      const { session } = await call<Started>('POST', `/boards/${desk.board}/rehearsals`, {
        students,
      } satisfies Rehearse)
      void navigate(`/run/${session}`)
    } catch (error) {
      setProblem(codeOf(error))
      setBusy(false)
    }
  }
  return (
    <Dialog open onOpenChange={onClose} title={t('rehearse.title')} text={t('rehearse.text')}>
      <label className="block">
        <span className="mb-1 block font-semibold">{t('rehearse.students', { count: students })}</span>
        <input
          type="range"
          min={1}
          max={40}
          value={students}
          onChange={(e) => setStudents(Number(e.target.value))}
          className="w-full accent-dusk"
        />
      </label>
      {problem && (
        <p role="alert" className="mt-3 font-semibold text-rose">
          {t(`refusal.${problem}`)}
        </p>
      )}
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onClose}>{t('cancel')}</Button>
        <Button look="main" disabled={busy} onClick={() => void start()}>
          {t('rehearse.start')}
        </Button>
      </div>
    </Dialog>
  )
}

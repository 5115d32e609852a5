import { RotateCcw } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { Button } from '../kit/Button'
import { DueField, evening } from '../kit/fields/DueField'
import { Refusal } from '../kit/Refusal'
import { Switch } from '../kit/fields/Switch'
import { Dialog } from '../kit/windows/Dialog'
import { call, codeOf } from '../wire/http'
import type { Code, Resume } from '../wire/types.gen'

/** Takes a lesson up again that has ended: as a lesson, or as homework until a date. */
export function TakeUp({ session }: { session: string }) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const [open, show] = useState(false)
  const [home, setHome] = useState(true)
  const [until, setUntil] = useState(evening(1))
  const [problem, tell] = useState<Code | null>(null)
  const take = async () => {
    tell(null)
    try {
      await call('POST', `/sessions/${session}/resume`, { until: home ? until : 0 } satisfies Resume)
      void navigate(`/run/${session}`)
    } catch (error) {
      tell(codeOf(error))
    }
  }
  return (
    <>
      <Button onClick={() => show(true)}>
        <RotateCcw size={17} aria-hidden="true" />
        {t('homework.takeUp')}
      </Button>
      {open && (
        <Dialog open onOpenChange={show} title={t('homework.takeUpTitle')} text={t('homework.takeUpText')}>
          <form
            className="flex flex-col gap-3"
            onSubmit={(e) => {
              e.preventDefault()
              void take()
            }}
          >
            <Refusal code={problem} />
            <Switch label={t('homework.asHomework')} help={t('homework.asHomeworkHelp')} on={home} onSwitch={setHome} />
            {home && <DueField label={t('homework.date')} at={until} onAt={setUntil} />}
            <Button look="main" type="submit" className="self-start">
              {t(home ? 'homework.leave' : 'homework.goOn')}
            </Button>
          </form>
        </Dialog>
      )}
    </>
  )
}

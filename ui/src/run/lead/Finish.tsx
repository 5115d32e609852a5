import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { Button } from '../../kit/Button'
import { Confirm } from '../../kit/windows/Confirm'
import { useStaffLesson } from '../../wire/hooks/useStaff'

/** Ends the session for good and goes to its record. */
export function Finish({ session }: { session: string }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const navigate = useNavigate()
  const [asking, setAsking] = useState(false)
  return (
    <>
      <Button look="main" onClick={() => setAsking(true)}>
        {t('run.finish')}
      </Button>
      <Confirm
        open={asking}
        onOpenChange={setAsking}
        title={t('run.finishTitle')}
        text={t('run.finishText')}
        yes={t('run.finishNow')}
        onYes={async () => {
          await lesson.command({ kind: 'end', end: {} })
          void navigate(`/records/${session}`)
        }}
      />
    </>
  )
}

import { useQuery } from '@tanstack/react-query'
import { Combine } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { Refusal } from '../../kit/Refusal'
import { Dialog } from '../../kit/windows/Dialog'
import { call, codeOf } from '../../wire/http'
import type { Alike } from '../../wire/types.gen'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import { offered, type Group } from '../alike/groups'
import { Groups } from '../alike/Groups'

/** Which texts say the same: offered as groups, which the teacher names, joins and takes apart. */
export function SameSaid({ poll, round }: { poll: string; round: number }) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  return (
    <>
      <Button className="self-start" onClick={() => setOpen(true)}>
        <Combine size={17} aria-hidden="true" />
        {t('asking.same')}
      </Button>
      <Dialog wide open={open} onOpenChange={setOpen} title={t('asking.same')} text={t('alike.text')}>
        <Sorted poll={poll} round={round} />
      </Dialog>
    </>
  )
}

function Sorted({ poll, round }: { poll: string; round: number }) {
  const { t } = useTranslation()
  const { session } = useStaffLesson()
  const reply = useQuery({
    queryKey: ['same said', session, poll, round],
    queryFn: () => call<Alike>('GET', `/sessions/${session}/answers-alike?poll=${poll}&round=${round}`),
    gcTime: 0,
    refetchOnWindowFocus: false,
  })
  const [changed, change] = useState<Group[] | null>(null)
  const alike = reply.data
  if (!alike) return reply.isError ? <Refusal code={codeOf(reply.error)} /> : <p role="status">{t('loading')}</p>
  if (alike.notes.length < 2) return <p>{t('alike.few')}</p>
  const groups = changed ?? offered(alike, 'alike', () => '')
  return (
    <div className="flex flex-col gap-3">
      {groups.length === 0 && <p className="text-slate">{t('alike.none')}</p>}
      <Groups groups={groups} notes={alike.notes} onChange={change} />
    </div>
  )
}

import { useQuery } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { Button } from '../Button'
import { Dialog } from './Dialog'
import { Refusal } from '../Refusal'
import { call, codeOf } from '../../wire/http'
import { useAct } from '../../wire/hooks/useAct'
import type { LikelyStudents, TieStudent } from '../../wire/types.gen'

type Props = { session: string; id: string; name: string; student: string; onClose: () => void }

/** Which student of the class somebody is who came under a name of their own; likely ones first. */
export function WhoIs({ session, id, name, student, onClose }: Props) {
  const { t } = useTranslation()
  const at = `/sessions/${session}/people/${id}`
  const asked = useQuery({
    queryKey: ['likely', session, id],
    queryFn: () => call<LikelyStudents>('GET', `${at}/likely`),
    staleTime: 0,
  })
  const { act, problem } = useAct('likely', 'record')
  async function tie(to: string) {
    const refused = await act(() => call('POST', `${at}/student`, { student: to } satisfies TieStudent))
    if (!refused) onClose()
  }
  return (
    <Dialog open onOpenChange={onClose} title={t('whoIs.title', { name })} text={t('whoIs.text')}>
      {asked.isPending && <p role="status">{t('loading')}</p>}
      <Refusal code={problem ?? (asked.isError ? codeOf(asked.error) : null)} />
      {asked.data &&
        (['likely', 'others'] as const).map(
          (which) =>
            asked.data[which].length > 0 && (
              <section key={which} className="mb-3">
                <h3 className="mb-1 font-semibold">{t(`whoIs.${which}`)}</h3>
                <ul className="flex flex-wrap gap-1.5">
                  {asked.data[which].map((s) => (
                    <li key={s.id}>
                      <Button
                        look={s.id === student ? 'main' : 'plain'}
                        aria-pressed={s.id === student}
                        onClick={() => void tie(s.id === student ? '' : s.id)}
                      >
                        <bdi>{s.name}</bdi>
                      </Button>
                    </li>
                  ))}
                </ul>
              </section>
            ),
        )}
      {student && (
        <Button className="self-start" look="quiet" onClick={() => void tie('')}>
          {t('whoIs.none')}
        </Button>
      )}
    </Dialog>
  )
}

import { useQuery } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { Pick } from '../kit/fields/Pick'
import { Refusal } from '../kit/Refusal'
import { Switch } from '../kit/fields/Switch'
import { ToSignIn } from '../kit/ToSignIn'
import { Typed } from '../kit/fields/Typed'
import { call, codeOf } from '../wire/http'
import type { HouseReply, HouseSettings } from '../wire/types.gen'
import { useAct } from '../wire/hooks/useAct'
import { useMerged } from '../wire/hooks/useMerged'
import { Levels } from './Levels'
import { Persons } from './Persons'
import { Room } from './Room'
import { Rooms } from './Rooms'

const months = [0, 3, 6, 12, 24, 36, 60, 120]

/** What administrators decide for the whole school; each is saved at once. */
export function School() {
  const { t } = useTranslation()
  const reply = useQuery({ queryKey: ['house'], queryFn: () => call<HouseReply>('GET', '/house') })
  const { act, problem } = useAct('house', 'me')
  const code = problem ?? (reply.isError ? codeOf(reply.error) : null)
  const house = reply.data?.house
  const set = useMerged(house, (next) => act(() => call('POST', '/house', next satisfies HouseSettings)))
  if (code === 'sign-in-needed') return <ToSignIn />
  return (
    <Rooms room="school">
      <Refusal code={code} />
      {reply.isPending && <p role="status">{t('loading')}</p>}
      {house && (
        <>
          <Room title={t('school.name')} text={t('school.nameText')}>
            <div className="max-w-md">
              <Typed
                label={t('school.nameLabel')}
                value={house.school}
                limit={80}
                onChange={(school) => void set({ school })}
              />
            </div>
          </Room>
          <Room title={t('school.signIns')}>
            <Switch
              label={t('school.second')}
              help={t('school.secondHelp')}
              on={house.secondFactor}
              onSwitch={(secondFactor) => void set({ secondFactor })}
            />
            <Switch
              label={t('school.guests')}
              help={t('school.guestsHelp')}
              on={house.guests}
              onSwitch={(guests) => void set({ guests })}
            />
          </Room>
          <Room title={t('school.levels')} text={t('school.levelsText')}>
            <Levels scale={house.scale} signs={reply.data?.signs ?? []} onSave={(scale) => set({ scale })} />
          </Room>
          <Room title={t('school.hosts')} text={t('school.hostsText')}>
            <div className="max-w-md">
              <Typed
                label={t('school.hostsLabel')}
                help={t('school.hostsHelp')}
                rows={3}
                value={(house.hosts ?? []).join('\n')}
                limit={4000}
                onChange={(text) => void set({ hosts: text.split(/\s+/).filter(Boolean) })}
              />
            </div>
          </Room>
          <Room title={t('rights.title')} text={t('rights.text')}>
            <Persons />
          </Room>
          <Room title={t('school.keep')}>
            <Pick
              label={t('school.keepFor')}
              help={t('school.keepHelp')}
              value={String(house.keepMonths)}
              options={months.map((n) => ({
                value: String(n),
                name: n ? t('keep.months', { count: n }) : t('keep.always'),
              }))}
              onPick={(n) => void set({ keepMonths: Number(n) })}
            />
          </Room>
        </>
      )}
    </Rooms>
  )
}

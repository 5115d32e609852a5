import { useTranslation } from 'react-i18next'
import { Pick } from '../kit/fields/Pick'
import { Refusal } from '../kit/Refusal'
import { Switch } from '../kit/fields/Switch'
import { ToSignIn } from '../kit/ToSignIn'
import { call } from '../wire/http'
import type { Language, OwnSettings, Region } from '../wire/types.gen'
import { useAct } from '../wire/hooks/useAct'
import { useMe } from '../wire/hooks/useMe'
import { useMerged } from '../wire/hooks/useMerged'
import { Rooms } from './Rooms'
import { Room } from './Room'

/** Languages by their own names; none that there is can be missing. */
const named: Record<Language, string> = { en: 'English', de: 'Deutsch' }
const languages = (Object.keys(named) as Language[]).map((value) => ({ value, name: named[value] }))
const known: Record<Region, true> = {
  '': true,
  'en-GB': true,
  'en-US': true,
  'de-DE': true,
  'de-AT': true,
  'de-CH': true,
  'sv-SE': true,
}
const percents = Array.from({ length: 21 }, (_, i) => 5 * i)
const percent = (n: number) => ({ value: String(n), name: `${n} %` })

const regions = Object.keys(known) as Region[]
const example = new Date(2026, 8, 3, 14, 5)

/** How dates and numbers look somewhere. */
const sample = (tag: string) =>
  `${new Intl.DateTimeFormat(tag, { dateStyle: 'short', timeStyle: 'short' }).format(example)} · ${new Intl.NumberFormat(tag).format(1234.5)}`

/** How a teacher likes to work; each is saved at once. */
export function Settings() {
  const { t } = useTranslation()
  const me = useMe()
  const { act, problem } = useAct('me')
  const own = me.data?.teacher?.settings
  const set = useMerged(own, (next) => act(() => call('POST', '/settings', next satisfies OwnSettings)))
  if (me.data && !me.data.teacher) return <ToSignIn />
  return (
    <Rooms room="settings">
      <Refusal code={problem} />
      {!own && <p role="status">{t('loading')}</p>}
      {own && (
        <>
          <Room title={t('settings.words')}>
            <Pick
              label={t('settings.language')}
              help={t('settings.languageHelp')}
              value={own.language}
              options={languages}
              onPick={(language) => set({ language })}
            />
            <Pick
              label={t('settings.classLanguage')}
              help={t('settings.classLanguageHelp')}
              value={own.classLanguage}
              options={[{ value: '' as Language, name: t('settings.same') }, ...languages]}
              onPick={(classLanguage) => set({ classLanguage })}
            />
            <Pick
              label={t('settings.region')}
              help={t('settings.regionHelp')}
              value={own.region}
              options={regions.map((value) => ({
                value,
                name: value ? sample(value) : t('settings.asLanguage', { sample: sample(own.language) }),
              }))}
              onPick={(region) => set({ region })}
            />
          </Room>
          <Room title={t('settings.lessons')} text={t('settings.lessonsText')}>
            <Pick
              label={t('start.pace')}
              value={own.pace}
              options={[
                { value: 'led', name: t('start.pace_led') },
                { value: 'own', name: t('start.pace_own') },
              ]}
              onPick={(pace) => set({ pace })}
            />
            <Switch
              label={t('settings.listed')}
              help={t('settings.listedHelp')}
              on={own.listed}
              onSwitch={(listed) => set({ listed })}
            />
            <Pick
              label={t('settings.bandFrom')}
              help={t('settings.bandHelp')}
              value={String(own.bands.from)}
              options={percents.filter((n) => n < own.bands.to).map(percent)}
              onPick={(from) => set({ bands: { ...own.bands, from: Number(from) } })}
            />
            <Pick
              label={t('settings.bandTo')}
              value={String(own.bands.to)}
              options={percents.filter((n) => n > own.bands.from).map(percent)}
              onPick={(to) => set({ bands: { ...own.bands, to: Number(to) } })}
            />
            <Switch
              label={t('settings.sound')}
              help={t('settings.soundHelp')}
              on={own.sound}
              onSwitch={(sound) => set({ sound })}
            />
          </Room>
          <Room title={t('settings.seen')}>
            <Switch
              label={t('settings.named')}
              help={t('settings.namedHelp')}
              on={own.named}
              onSwitch={(named) => set({ named })}
            />
            <Switch
              label={t('settings.ask')}
              help={t('settings.askHelp')}
              on={!own.questions.off}
              onSwitch={(on) => set({ questions: { ...own.questions, off: !on } })}
            />
            <Switch
              label={t('settings.askAll')}
              help={t('settings.askAllHelp')}
              on={own.questions.forAll ?? false}
              onSwitch={(forAll) => set({ questions: { ...own.questions, forAll } })}
            />
            <Switch
              label={t('settings.askNamed')}
              help={t('settings.askNamedHelp')}
              on={own.questions.named ?? false}
              onSwitch={(named) => set({ questions: { ...own.questions, named } })}
            />
          </Room>
          <Room title={t('settings.screen')}>
            <Switch
              label={t('settings.darkFront')}
              help={t('settings.darkFrontHelp')}
              on={own.darkFront}
              onSwitch={(darkFront) => set({ darkFront })}
            />
            <Switch
              label={t('settings.calm')}
              help={t('settings.calmHelp')}
              on={own.calm}
              onSwitch={(calm) => set({ calm })}
            />
          </Room>
        </>
      )}
    </Rooms>
  )
}

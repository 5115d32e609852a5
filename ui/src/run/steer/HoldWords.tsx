import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { Dialog } from '../../kit/windows/Dialog'
import { Refusal } from '../../kit/Refusal'
import { Switch } from '../../kit/fields/Switch'
import { call } from '../../wire/http'
import type { OwnSettings } from '../../wire/types.gen'
import { useAct } from '../../wire/hooks/useAct'
import { useMe } from '../../wire/hooks/useMe'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import type { Staff } from '../../wire/lesson'

/** The languages of which the server has lists (core/words). */
const languages = ['ar', 'cs', 'da', 'de', 'en', 'es', 'fi', 'fr', 'hu', 'it', 'nl', 'no', 'pl', 'pt', 'ru', 'sv', 'tr']

/** Which words wait for the teacher's yes wherever they are written. */
export function HoldWords({ staff, onClose }: { staff: Staff; onClose: () => void }) {
  const { t, i18n } = useTranslation()
  const lesson = useStaffLesson()
  const { words, languages: chosen, own: mine } = staff.state.holds
  const [of, setOf] = useState(words ? (chosen ?? []) : [...new Set(['en', i18n.language])])
  const [own, setOwn] = useState((mine ?? []).join('\n'))
  const names = new Intl.DisplayNames(i18n.language, { type: 'language' })
  const me = useMe()
  const settings = me.data?.teacher?.role === 'guest' ? undefined : me.data?.teacher?.settings
  const [always, setAlways] = useState<boolean | null>(null)
  const keeps = always ?? settings?.words !== undefined
  const { act, problem } = useAct('me')
  async function save(on: boolean) {
    const list = own.split('\n').filter((w) => w.trim())
    const held = { languages: of, own: list }
    if (!(await lesson.give({ kind: 'hold', hold: { on, words: held } }))) return
    const next = settings && { ...settings, words: on && keeps ? held : undefined }
    const refused =
      next && JSON.stringify(next.words) !== JSON.stringify(settings.words)
        ? await act(() => call('POST', '/settings', next satisfies OwnSettings))
        : null
    if (!refused) onClose()
  }
  return (
    <Dialog open onOpenChange={onClose} title={t('hold.words')} text={t('hold.wordsText')}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(e) => {
          e.preventDefault()
          void save(true)
        }}
      >
        <label className="flex flex-col gap-1">
          <span className="font-semibold">{t('hold.own')}</span>
          <textarea
            rows={4}
            value={own}
            onChange={(e) => setOwn(e.target.value)}
            className="rounded-lg border border-edge bg-paper px-3 py-2"
          />
        </label>
        <fieldset>
          <legend className="mb-1 font-semibold">{t('hold.languages')}</legend>
          <div className="grid grid-cols-2 gap-x-3 gap-y-1 sm:grid-cols-3">
            {languages.map((l) => (
              <label key={l} className="flex items-center gap-2">
                <input
                  type="checkbox"
                  className="size-4 accent-dusk"
                  checked={of.includes(l)}
                  onChange={(e) => setOf(e.target.checked ? [...of, l] : of.filter((o) => o !== l))}
                />
                {names.of(l)}
              </label>
            ))}
          </div>
        </fieldset>
        {settings && <Switch label={t('hold.always')} help={t('hold.alwaysText')} on={keeps} onSwitch={setAlways} />}
        <Refusal code={problem} />
        <div className="flex flex-wrap gap-2">
          <Button look="main" type="submit">
            {t(words ? 'hold.wordsSave' : 'hold.wordsOn')}
          </Button>
          {words && <Button onClick={() => void save(false)}>{t('hold.wordsOff')}</Button>}
        </div>
      </form>
    </Dialog>
  )
}

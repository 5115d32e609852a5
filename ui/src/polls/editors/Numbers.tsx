import { useTranslation } from 'react-i18next'
import { useMe } from '../../wire/hooks/useMe'
import type { Nearness, NumberMistake, Tolerance } from '../../wire/types.gen'
import { MistakeName } from './MistakeName'
import { field, type FieldsProps } from './props'
import { Rows } from './Rows'

const ways: Nearness[] = ['exact', 'absolute', 'relative', 'figures', 'decimals']

/** A number: what is right, how near is near enough, its unit, and known wrong ones. */
export function NumberFields({ asked, onAsked }: FieldsProps<'number'>) {
  const { t, i18n } = useTranslation()
  const own = useMe().data?.teacher?.settings
  const { number } = asked
  // As the class writes; where its language is that of the teacher's country, as that country does.
  const spoken = own?.classLanguage || own?.language || i18n.language
  const language = number.language || (own?.region?.startsWith(`${spoken}-`) ? own.region : spoken)
  const put = (part: Partial<typeof number>) => onAsked({ kind: 'number', number: { ...number, language, ...part } })
  const near = (part: Partial<Tolerance>) => put({ tolerance: { ...number.tolerance, ...part } })
  const { is } = number.tolerance
  return (
    <div className="flex flex-col gap-3">
      <p className="text-sm text-slate">
        {t('question.numbersAs', { example: new Intl.NumberFormat(language).format(12345.5) })}
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <label className="flex flex-col gap-1 font-semibold">
          {t('question.numberRight')}
          <input
            value={number.answer ?? ''}
            maxLength={80}
            onChange={(e) => put({ answer: e.target.value || undefined })}
            className={`${field} w-40 font-normal`}
          />
        </label>
        <label className="flex flex-col gap-1 font-semibold">
          {t('question.unit')}
          <input
            value={number.unit ?? ''}
            maxLength={60}
            onChange={(e) =>
              put({ unit: e.target.value || undefined, ...(!e.target.value && { unitRule: undefined }) })
            }
            className={`${field} w-28 font-normal`}
          />
        </label>
        {number.unit && (
          <label className="flex flex-col gap-1 font-semibold">
            {t('question.unitRule')}
            <select
              value={number.unitRule ?? ''}
              onChange={(e) => put({ unitRule: (e.target.value || undefined) as typeof number.unitRule })}
              className={`${field} font-normal`}
            >
              {(['', 'may', 'must'] as const).map((rule) => (
                <option key={rule} value={rule}>
                  {t(`question.unit_${rule || 'no'}`)}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
      {number.answer && (
        <div className="flex flex-wrap items-end gap-3">
          <label className="flex flex-col gap-1 font-semibold">
            {t('question.near')}
            <select
              value={is}
              onChange={(e) => {
                const to = e.target.value as Nearness
                const [below, above] = [number.tolerance.below ?? '0', number.tolerance.above ?? '0']
                if (to === 'absolute' || to === 'relative') put({ tolerance: { is: to, below, above } })
                else if (to === 'exact') put({ tolerance: { is: to } })
                else put({ tolerance: { is: to, places: number.tolerance.places ?? 3 } })
              }}
              className={`${field} font-normal`}
            >
              {ways.map((way) => (
                <option key={way} value={way}>
                  {t(`question.near_${way}`)}
                </option>
              ))}
            </select>
          </label>
          {(is === 'absolute' || is === 'relative') &&
            (['below', 'above'] as const).map((side) => (
              <label key={side} className="flex flex-col gap-1 font-semibold">
                {t(`question.${side}`)}
                <span className="font-normal">
                  <input
                    value={number.tolerance[side] ?? ''}
                    maxLength={30}
                    onChange={(e) => near({ [side]: e.target.value })}
                    className={`${field} w-24`}
                  />
                  {is === 'relative' && ' %'}
                </span>
              </label>
            ))}
          {(is === 'figures' || is === 'decimals') && (
            <label className="flex flex-col gap-1 font-semibold">
              {t('question.places')}
              <input
                type="number"
                min={is === 'figures' ? 1 : 0}
                max={15}
                value={number.tolerance.places ?? 0}
                onChange={(e) => near({ places: e.target.valueAsNumber || 0 })}
                className={`${field} w-24 font-normal`}
              />
            </label>
          )}
        </div>
      )}
      {number.answer && (
        <Rows<NumberMistake>
          legend={t('question.mistakes')}
          rows={number.mistakes ?? []}
          keyOf={(_, at) => `${at}`}
          onRows={(mistakes) => put({ mistakes })}
          fresh={() => ({ name: '', from: '' })}
          least={0}
          most={12}
          add={t('question.addMistake')}
          drop={(n) => t('question.dropMistake', { n })}
        >
          {(m, at, set) => (
            <>
              <input
                aria-label={t('question.mistakeFrom', { n: at + 1 })}
                placeholder={t('question.wrongNumber')}
                value={m.from}
                maxLength={80}
                onChange={(e) => set({ from: e.target.value })}
                className={`${field} w-28`}
              />
              <input
                aria-label={t('question.mistakeTo', { n: at + 1 })}
                placeholder={t('question.wrongTo')}
                value={m.to ?? ''}
                maxLength={80}
                onChange={(e) => set({ to: e.target.value || undefined })}
                className={`${field} w-28`}
              />
              <MistakeName n={at + 1} name={m.name} onName={(to) => set({ name: to })} />
            </>
          )}
        </Rows>
      )}
    </div>
  )
}

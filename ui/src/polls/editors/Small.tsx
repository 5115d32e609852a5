import { useTranslation } from 'react-i18next'
import { field, type FieldsProps } from './props'

/** True or false: which is right, and whether one may be not sure. */
export function TruthFields({ asked, onAsked }: FieldsProps<'truth'>) {
  const { t } = useTranslation()
  const { truth } = asked
  const put = (part: Partial<typeof truth>) => onAsked({ kind: 'truth', truth: { ...truth, ...part } })
  return (
    <div className="flex flex-col gap-3">
      <label className="flex items-center gap-2 font-semibold">
        {t('question.truthRight')}
        <select
          value={truth.is ?? ''}
          onChange={(e) => put({ is: (e.target.value || undefined) as typeof truth.is })}
          className={`${field} font-normal`}
        >
          <option value="">{t('question.neither')}</option>
          <option value="true">{t('poll.truth_true')}</option>
          <option value="false">{t('poll.truth_false')}</option>
        </select>
      </label>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="size-4 accent-dusk"
          checked={truth.notSure ?? false}
          onChange={(e) => put({ notSure: e.target.checked || undefined })}
        />
        {t('question.offerNotSure')}
      </label>
      {truth.is && (
        <label className="flex flex-col gap-1">
          {t('question.mistakeWhole')}
          <input
            value={truth.mistake ?? ''}
            maxLength={80}
            dir="auto"
            onChange={(e) => put({ mistake: e.target.value || undefined })}
            className={field}
          />
        </label>
      )}
    </div>
  )
}

/** A scale: how many steps, and the words at its ends. */
export function ScaleFields({ asked, onAsked }: FieldsProps<'scale'>) {
  const { t } = useTranslation()
  const { scale } = asked
  const put = (part: Partial<typeof scale>) => onAsked({ kind: 'scale', scale: { ...scale, ...part } })
  return (
    <div className="flex flex-wrap items-end gap-3">
      <label className="flex flex-col gap-1 font-semibold">
        {t('question.steps')}
        <select
          value={scale.steps}
          onChange={(e) => put({ steps: Number(e.target.value) })}
          className={`${field} font-normal`}
        >
          {[3, 4, 5, 6, 7, 8, 9, 10].map((n) => (
            <option key={n}>{n}</option>
          ))}
        </select>
      </label>
      {(['low', 'high'] as const).map((end) => (
        <label key={end} className="flex grow flex-col gap-1 font-semibold">
          {t(`question.scale_${end}`)}
          <input
            value={scale[end]}
            maxLength={60}
            dir="auto"
            onChange={(e) => put({ [end]: e.target.value })}
            className={`${field} font-normal`}
          />
        </label>
      ))}
    </div>
  )
}

/** Kinds that have nothing to set. */
export function NoFields({ asked }: FieldsProps<'open'> | FieldsProps<'draw'>) {
  const { t } = useTranslation()
  return <p className="text-slate">{t(asked.kind === 'open' ? 'question.openHint' : 'question.drawHint')}</p>
}

import { useId } from 'react'
import { useTranslation } from 'react-i18next'
import type { Element, Feedback, Frame, QuestionSet } from '../../wire/types.gen'

type Props = { frame: Frame; onSet: (set: QuestionSet | undefined) => void }

const feedbacks: Feedback[] = ['', 'end', 'once']
const times = [0, 2, 3, 5, 8, 10, 15, 20, 30, 45]

const overlap = (a: Element, b: Element) => a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h

/** Whether a frame's questions are asked in a row, and how. */
export function RowSettings({ frame, onSet }: Props) {
  const { t } = useTranslation()
  const id = useId()
  const { set } = frame
  const change = (to: Partial<QuestionSet>) => onSet({ ...set, ...to })
  const select = 'rounded-lg border border-edge bg-paper px-2 py-1.5'
  const polls = frame.prepared.filter((m) => m.kind === 'poll')
  // Not in a row, some would lie on top of others.
  const stacked = polls.some((a, i) => polls.slice(i + 1).some((b) => overlap(a, b)))
  if (!set && polls.length === 0) return null
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="sr-only">{t('row.title')}</legend>
      <label className="flex items-center gap-2 font-semibold">
        <input
          type="checkbox"
          checked={set !== undefined}
          disabled={set !== undefined && stacked}
          aria-describedby={`${id} stays`}
          onChange={(e) => onSet(e.target.checked ? { ownPace: true, feedback: 'end' } : undefined)}
          className="size-4 accent-dusk"
        />
        {t('row.on')}
      </label>
      {set && stacked && (
        <p id={`${id} stays`} className="text-sm text-slate">
          {t('row.stays')}
        </p>
      )}
      {set && (
        <>
          <label className="flex flex-col gap-1 text-sm">
            {t('row.pace')}
            <select
              className={select}
              value={set.ownPace ? 'own' : 'led'}
              onChange={(e) => change({ ownPace: e.target.value === 'own' || undefined })}
            >
              <option value="led">{t('row.led')}</option>
              <option value="own">{t('row.own')}</option>
            </select>
          </label>
          <label className="flex flex-col gap-1 text-sm">
            {t('row.feedback')}
            <select
              className={select}
              value={set.feedback ?? ''}
              onChange={(e) => change({ feedback: (e.target.value || undefined) as Feedback | undefined })}
            >
              {feedbacks.map((f) => (
                <option key={f} value={f}>
                  {t(`row.feedback_${f || 'never'}`)}
                </option>
              ))}
            </select>
          </label>
          {set.feedback === 'once' && (
            <label className="flex items-center justify-between gap-3 text-sm">
              {t('row.tries')}
              <select
                className={select}
                value={set.tries ?? 1}
                onChange={(e) => change({ tries: Number(e.target.value) })}
              >
                {[1, 2, 3, 4, 5].map((n) => (
                  <option key={n} value={n}>
                    {n}
                  </option>
                ))}
              </select>
            </label>
          )}
          {set.ownPace && (
            <label className="flex items-center justify-between gap-3 text-sm">
              {t('row.time')}
              <select
                className={select}
                value={set.seconds ?? 0}
                onChange={(e) => change({ seconds: Number(e.target.value) || undefined })}
              >
                {times.map((n) => (
                  <option key={n} value={60 * n}>
                    {n === 0 ? t('prepare.noTimer') : t('prepare.minutes', { count: n })}
                  </option>
                ))}
              </select>
            </label>
          )}
          {set.ownPace && (
            <>
              <label className="flex items-center gap-2 text-sm">
                <input
                  type="checkbox"
                  checked={set.race ?? false}
                  aria-describedby={id}
                  onChange={(e) => change({ race: e.target.checked || undefined })}
                  className="size-4 accent-dusk"
                />
                {t('row.race')}
              </label>
              {set.race && (
                <p id={id} className="text-sm text-slate">
                  {t('row.raceHelp')}
                </p>
              )}
            </>
          )}
        </>
      )}
    </fieldset>
  )
}

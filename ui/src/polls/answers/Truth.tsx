import { useId } from 'react'
import { useTranslation } from 'react-i18next'
import { row, type AnswerProps } from './props'
import { RightSign } from './RightSign'

/** True, false, or not sure. */
export function Truth({ asked, given, open, revealed, onGive }: AnswerProps<'truth'>) {
  const { t } = useTranslation()
  const name = useId()
  const all = asked.truth.notSure ? (['true', 'false', 'notSure'] as const) : (['true', 'false'] as const)
  return (
    <div className="flex flex-col gap-[0.45em] sm:flex-row">
      {all.map((is) => {
        const mine = given?.truth.is === is
        return (
          <label key={is} className={`${row(mine, open)} grow`}>
            {onGive && (
              <input
                type="radio"
                name={name}
                checked={mine}
                disabled={!open}
                onChange={() => onGive({ kind: 'truth', truth: { is } })}
                className="size-[1.1em] shrink-0 accent-dusk outline-none"
              />
            )}
            <span className="grow">{t(`poll.truth_${is}`)}</span>
            {revealed && asked.truth.is === is && <RightSign />}
          </label>
        )
      })}
    </div>
  )
}

import { useTranslation } from 'react-i18next'
import { LevelBadge } from '../kit/LevelBadge'
import type { JudgedLevel } from '../wire/types.gen'

/** What was thought of work by each criterion: the level, and what it says that such work looks like. */
export function GridGiven({ levels }: { levels: readonly JudgedLevel[] }) {
  const { t } = useTranslation()
  return (
    <ul aria-label={t('given.grid')} className="my-2 flex flex-col gap-2">
      {levels.map((level) => {
        const words = level.by?.words?.[level.scale[level.at]!.name]
        return (
          <li key={level.by?.id} className="rounded-lg bg-snow px-3 py-2">
            <p className="flex flex-wrap items-center gap-x-3 gap-y-1">
              <b dir="auto">{level.by?.name}</b>
              <LevelBadge level={level} />
            </p>
            {words && (
              <p dir="auto" className="mt-0.5 break-words">
                {words}
              </p>
            )}
          </li>
        )
      })}
    </ul>
  )
}

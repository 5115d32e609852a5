import { useTranslation } from 'react-i18next'
import { tintGround } from '../../frame/paint/colours'
import { Button } from '../../kit/Button'
import { LevelBadge, levelIcons } from '../../kit/LevelBadge'
import type { Criterion, Level, WorkJudged } from '../../wire/types.gen'
import type { Said } from './useMarking'

type Props = {
  grid: readonly Criterion[]
  scale: readonly Level[]
  /** The criterion to which the keys give a level; undefined for none of them. */
  on?: string
  said: (criterion: string) => Said
  /** What other teachers think, as far as one may see it, and who they are. */
  others: (criterion: string) => WorkJudged[]
  names: Record<string, string>
  onSay: (criterion: string, level: number | undefined) => void
  /** What was judged by criteria that are no longer there. */
  gone: WorkJudged[]
}

/** A level by each criterion: signs side by side, and below them what work of the chosen level looks like. */
export function GridJudge({ grid, scale, on, said, others, names, onSay, gone }: Props) {
  const { t } = useTranslation()
  return (
    <div className="flex flex-col gap-2">
      {grid.map((c) => {
        const { level, old } = said(c.id)
        const words = level === undefined ? undefined : c.words?.[scale[level]!.name]
        return (
          <div
            key={c.id}
            role="group"
            aria-label={c.name}
            aria-current={c.id === on}
            data-part={c.id === on ? 'judged-now' : undefined}
            className={`rounded-xl border-s-4 bg-paper px-3 py-2 ${c.id === on ? 'border-dusk' : 'border-line'}`}
          >
            <p dir="auto" className="mb-1.5 font-semibold break-words">
              {c.name}
            </p>
            <div className="flex flex-wrap gap-1.5">
              {scale.map((l, i) => {
                const Icon = levelIcons[l.sign]
                const chosen = level === i
                return (
                  <button
                    key={l.name}
                    type="button"
                    aria-pressed={chosen}
                    aria-label={t('grid.level', { name: c.name, level: l.name })}
                    title={[l.name, c.words?.[l.name]].filter(Boolean).join(': ')}
                    onClick={() => onSay(c.id, chosen ? undefined : i)}
                    className={`grid h-11 min-w-11 grow place-items-center rounded-lg border-2 ${tintGround[l.tint]} ${chosen ? 'border-dusk outline-2 outline-dusk' : 'border-transparent hover:border-edge'}`}
                  >
                    <Icon size={18} aria-hidden="true" />
                  </button>
                )
              })}
            </div>
            {old && (
              <p className="mt-1.5 flex flex-wrap items-center gap-2 text-sm text-slate">
                {t('marking.older')}
                <LevelBadge level={old} />
              </p>
            )}
            {others(c.id).map((o) => (
              <p key={o.by} className="mt-1.5 flex flex-wrap items-center gap-2 text-sm text-slate">
                {t('marking.theySay', { name: names[o.by] })}
                {o.level && <LevelBadge level={o.level} />}
              </p>
            ))}
            {level !== undefined && (
              <p className="mt-1.5 text-sm break-words">
                <b>
                  <bdi>{scale[level]!.name}</bdi>
                </b>
                {words && (
                  <>
                    : <bdi>{words}</bdi>
                  </>
                )}
              </p>
            )}
          </div>
        )
      })}
      {gone.map((j) => (
        <p key={j.criterion} className="flex flex-wrap items-center gap-2 text-sm text-slate">
          {t('grid.gone', { name: j.level?.by?.name })}
          {j.level && <LevelBadge level={j.level} />}
          <Button look="quiet" onClick={() => onSay(j.criterion!, undefined)}>
            {t('grid.takeBack')}
          </Button>
        </p>
      ))}
    </div>
  )
}

import { ArrowDown, ArrowUp, Plus, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { tintGround } from '../frame/paint/colours'
import { Button } from '../kit/Button'
import { levelIcons } from '../kit/LevelBadge'
import type { Code, Level, LevelSign, Tint } from '../wire/types.gen'

const tints: Tint[] = ['snow', 'apricot', 'rose', 'lilac', 'glacier', 'moss']
const [LEAST, MOST] = [2, 6]

type Props = { scale: Level[]; signs: LevelSign[]; onSave: (scale: Level[]) => Promise<Code | null> }

/** The levels by which work is judged, the lowest first: each with a word, a colour and a sign. */
export function Levels({ scale, signs, onSave }: Props) {
  const { t } = useTranslation()
  const [draft, setDraft] = useState<Level[] | null>(null)
  const [saved, setSaved] = useState(false)
  const levels = draft ?? scale
  const counted = levels[0]?.points !== undefined
  const edit = (next: Level[]) => {
    setDraft(next)
    setSaved(false)
  }
  const set = (i: number, to: Partial<Level>) => edit(levels.map((l, n) => (n === i ? { ...l, ...to } : l)))
  /** A sign stands for one level: who takes another's gives theirs. */
  const sign = (i: number, to: LevelSign) =>
    edit(levels.map((l, n) => (n === i ? { ...l, sign: to } : l.sign === to ? { ...l, sign: levels[i]!.sign } : l)))
  function move(i: number, by: number) {
    const next = [...levels]
    const [l] = next.splice(i, 1)
    next.splice(i + by, 0, l!)
    edit(next)
  }
  const add = () =>
    edit([
      ...levels,
      {
        name: '',
        tint: tints.find((x) => !levels.some((l) => l.tint === x)) ?? 'snow',
        sign: signs.find((x) => !levels.some((l) => l.sign === x)) ?? 'peak',
        ...(counted && { points: levels.length }),
      },
    ])
  async function save() {
    if (await onSave(levels)) return
    setDraft(null)
    setSaved(true)
  }
  const small = 'rounded-lg border border-edge bg-paper px-2 py-1.5'
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault()
        void save()
      }}
    >
      <ol className="flex flex-col gap-2">
        {levels.map((level, i) => {
          const Icon = levelIcons[level.sign]
          const name = level.name || t('school.levelN', { n: i + 1 })
          return (
            <li key={i} className="flex flex-wrap items-center gap-2">
              <span
                className={`grid size-9 shrink-0 place-items-center rounded-lg border border-edge ${tintGround[level.tint]}`}
              >
                <Icon size={18} aria-hidden="true" />
              </span>
              <input
                aria-label={t('school.levelName', { n: i + 1 })}
                className={`${small} min-w-40 grow`}
                value={level.name}
                maxLength={30}
                onChange={(e) => set(i, { name: e.target.value })}
              />
              <select
                aria-label={t('school.levelTint', { name })}
                className={small}
                value={level.tint}
                onChange={(e) => set(i, { tint: e.target.value as Tint })}
              >
                {tints.map((x) => (
                  <option key={x} value={x}>
                    {t(`tints.${x}`)}
                  </option>
                ))}
              </select>
              <select
                aria-label={t('school.levelSign', { name })}
                className={small}
                value={level.sign}
                onChange={(e) => sign(i, e.target.value as LevelSign)}
              >
                {signs.map((x) => (
                  <option key={x} value={x}>
                    {t(`levelSign.${x}`)}
                  </option>
                ))}
              </select>
              {counted && (
                <input
                  aria-label={t('school.levelPoints', { name })}
                  type="number"
                  min={0}
                  max={100}
                  className={`${small} w-20`}
                  value={level.points ?? 0}
                  onChange={(e) => set(i, { points: Math.round(Number(e.target.value)) })}
                />
              )}
              <Button
                look="quiet"
                disabled={i === 0}
                aria-label={t('school.levelUp', { name })}
                onClick={() => move(i, -1)}
              >
                <ArrowUp size={17} aria-hidden="true" />
              </Button>
              <Button
                look="quiet"
                disabled={i === levels.length - 1}
                aria-label={t('school.levelDown', { name })}
                onClick={() => move(i, 1)}
              >
                <ArrowDown size={17} aria-hidden="true" />
              </Button>
              <Button
                look="quiet"
                disabled={levels.length <= LEAST}
                aria-label={t('school.levelRemove', { name })}
                onClick={() => edit(levels.filter((_, n) => n !== i))}
              >
                <Trash2 size={17} aria-hidden="true" />
              </Button>
            </li>
          )
        })}
      </ol>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="size-4 accent-dusk"
          checked={counted}
          onChange={(e) =>
            edit(
              levels.map(({ name, tint, sign }, i) => ({ name, tint, sign, ...(e.target.checked && { points: i }) })),
            )
          }
        />
        {t('school.points')}
      </label>
      <div className="flex flex-wrap gap-2">
        <Button disabled={levels.length >= MOST} onClick={add}>
          <Plus size={17} aria-hidden="true" />
          {t('school.levelAdd')}
        </Button>
        <Button type="submit" look="main" disabled={!draft || levels.some((l) => !l.name.trim())}>
          {t('school.levelsSave')}
        </Button>
        <p role="status" className="self-center font-semibold text-fern empty:hidden">
          {saved && t('school.levelsSaved')}
        </p>
      </div>
    </form>
  )
}

import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Thumbnail } from '../frame/paint/Thumbnail'
import { Button } from '../kit/Button'
import type { Code, Frame } from '../wire/types.gen'

export type Page = {
  frame?: Frame
  /** Why there is no frame. */
  problem?: Code
  /** What could not be brought along, in words. */
  left?: string[]
  /** Where it stands in its file. */
  at?: number
}

type Props = {
  pages: Page[]
  /** The pages are ways to have the same: only the first is chosen at first. */
  alternatives?: boolean
  /** They are questions, which may come onto one frame. */
  questions?: boolean
  onAdd: (pages: number[], row?: boolean) => void
}

/** Pages with a tick each; all are chosen at first. */
export function ChooseFrames({ pages, alternatives = false, questions = false, onAdd }: Props) {
  const { t } = useTranslation()
  const [left, setLeft] = useState<ReadonlySet<number>>(
    () => new Set(alternatives ? pages.map((_, i) => i).slice(1) : []),
  )
  const [row, setRow] = useState(true)
  const there = pages.flatMap((p, i) => (p.frame ? [i] : []))
  const chosen = there.filter((i) => !left.has(i))
  function toggle(i: number) {
    const next = new Set(left)
    if (!next.delete(i)) next.add(i)
    setLeft(next)
  }
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <Button onClick={() => setLeft(chosen.length === there.length ? new Set(there) : new Set())}>
          {chosen.length === there.length ? t('add.none') : t('add.all')}
        </Button>
        {questions && there.length > 1 && (
          <label className="flex min-h-9 items-center gap-2">
            <input
              type="checkbox"
              className="size-4 accent-dusk"
              checked={row}
              onChange={(e) => setRow(e.target.checked)}
            />
            {t('add.asRow')}
          </label>
        )}
        <span className="grow" />
        <Button look="main" disabled={chosen.length === 0} onClick={() => onAdd(chosen, questions && row)}>
          {t('add.addThese', { count: chosen.length })}
        </Button>
      </div>
      <ol className="grid grid-cols-2 gap-3 sm:grid-cols-4">
        {pages.map((page, i) => (
          <li key={i} className="rounded-xl border-2 border-line p-2 has-checked:border-dusk">
            {page.frame ? (
              <label className="block cursor-pointer">
                <span aria-hidden="true" className="block">
                  <Thumbnail frame={page.frame} marks={[]} width={240} label={page.frame.title} />
                </span>
                <span className="mt-1.5 flex items-center gap-2 text-sm">
                  <input
                    type="checkbox"
                    className="size-5 shrink-0 accent-dusk"
                    checked={!left.has(i)}
                    onChange={() => toggle(i)}
                  />
                  <span className="truncate">{page.frame.title || t('add.page', { n: i + 1 })}</span>
                </span>
                {page.left && page.left.length > 0 && (
                  <span className="mt-1 block text-xs text-amber">
                    {t('add.leftOut', { what: page.left.map((w) => t(`add.left_${w}`)).join(', ') })}
                  </span>
                )}
              </label>
            ) : (
              <p className="grid aspect-8/5 place-items-center bg-amber-soft p-2 text-center text-sm text-amber">
                {page.at && page.problem
                  ? t('add.questionFailed', { at: page.at, why: t(`refusal.${page.problem}`) })
                  : t('add.pageFailed', { n: i + 1 })}
              </p>
            )}
          </li>
        ))}
      </ol>
    </>
  )
}

import { Plus, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import { Button } from '../kit/Button'
import { Typed } from '../kit/fields/Typed'
import { LevelName } from '../kit/LevelBadge'
import type { Criterion, Level } from '../wire/types.gen'

/** As many as a grid may have; as core/lesson has it. */
const MOST = 12

type Props = {
  criteria: readonly Criterion[]
  scale: readonly Level[]
  /** Grids of other frames of the board, to begin with. */
  others: ReadonlyArray<{ name: string; criteria: readonly Criterion[] }>
  onChange: (to: Criterion[]) => void
}

const plain = (text: string) => text.trim().replace(/\s+/g, ' ')

/** Criteria as rows, the levels of the school as columns, and in each cell what such work looks like. */
export function GridEditor({ criteria, scale, others, onChange }: Props) {
  const { t } = useTranslation()
  const [name, setName] = useState('')
  const full = criteria.length >= MOST
  const change = (id: string, to: Partial<Criterion>) =>
    onChange(criteria.map((c) => (c.id === id ? { ...c, ...to } : c)))
  function describe(c: Criterion, level: string, text: string) {
    const words = { ...c.words, [level]: text.trim() }
    if (!words[level]) delete words[level]
    change(c.id, { words })
  }
  return (
    <div className="flex flex-col gap-4">
      {criteria.length > 0 && (
        <div className="overflow-x-auto rounded-xl border border-line">
          <table className="w-full min-w-160 border-collapse text-start">
            <thead>
              <tr className="bg-mist">
                <th scope="col" className="w-52 px-3 py-2 text-start">
                  {t('grid.criterion')}
                </th>
                {scale.map((level) => (
                  <th key={level.name} scope="col" className="px-2 py-2 text-start font-normal">
                    <LevelName level={level} />
                  </th>
                ))}
                <td />
              </tr>
            </thead>
            <tbody>
              {criteria.map((c, i) => (
                <tr key={c.id} className="border-t border-line align-top">
                  <th scope="row" className="px-2 py-1 text-start">
                    <Typed
                      label={t('grid.nameOf', { n: i + 1 })}
                      hideLabel
                      required
                      rows={3}
                      value={c.name}
                      limit={80}
                      onChange={(next) => change(c.id, { name: plain(next) })}
                    />
                  </th>
                  {scale.map((level) => (
                    <td key={level.name} className="border-s border-line px-1 py-1">
                      <Typed
                        label={t('grid.wordsOf', { name: c.name, level: level.name })}
                        hideLabel
                        rows={3}
                        value={c.words?.[level.name] ?? ''}
                        limit={300}
                        onChange={(text) => describe(c, level.name, text)}
                      />
                    </td>
                  ))}
                  <td className="py-1 pe-1">
                    <Button
                      look="quiet"
                      aria-label={t('grid.drop', { name: c.name })}
                      onClick={() => onChange(criteria.filter((o) => o.id !== c.id))}
                    >
                      <Trash2 size={17} aria-hidden="true" />
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <form
        className="flex flex-wrap gap-2"
        onSubmit={(e) => {
          e.preventDefault()
          if (plain(name) === '' || full) return
          onChange([...criteria, { id: uuidv7(), name: plain(name) }])
          setName('')
        }}
      >
        <input
          aria-label={t('grid.new')}
          placeholder={t('grid.example')}
          value={name}
          maxLength={80}
          dir="auto"
          onChange={(e) => setName(e.target.value)}
          className="min-w-52 grow rounded-lg border border-edge px-2.5 py-1.5"
        />
        <Button type="submit" disabled={full}>
          <Plus size={17} aria-hidden="true" />
          {t('grid.add')}
        </Button>
      </form>
      {full && <p className="text-slate">{t('grid.full', { most: MOST })}</p>}
      {criteria.length === 0 && others.length > 0 && (
        <div className="flex flex-wrap items-center gap-2">
          <span className="text-slate">{t('grid.takeFrom')}</span>
          {others.map((o) => (
            <Button key={o.name} onClick={() => onChange([...o.criteria])}>
              <bdi className="max-w-64 truncate">{o.name}</bdi>
            </Button>
          ))}
        </div>
      )}
    </div>
  )
}

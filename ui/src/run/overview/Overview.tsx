import { useQuery } from '@tanstack/react-query'
import { Download, Image } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { Refusal } from '../../kit/Refusal'
import { call, codeOf } from '../../wire/http'
import type { Cell, Coverage } from '../../wire/types.gen'
import { amount, cellAt, cellWidth, paintCoverage } from './picture'

const AGAIN_MS = 5000
/** Up to how many cells the table has a button in each of them. */
const BUTTONS = 2000

type Props = {
  session: string
  /** Opens a student's part of a frame. */
  onLook: (student: string, frame: string) => void
}

/** Who has done how much on which frame, as one picture and as a table; and how evenly it is spread. */
export function Overview({ session, onLook }: Props) {
  const { t } = useTranslation()
  const reply = useQuery({
    queryKey: ['coverage', session],
    queryFn: () => call<Coverage>('GET', `/sessions/${session}/coverage`),
    refetchInterval: AGAIN_MS,
  })
  const [asTable, setTable] = useState(false)
  const [width, setWidth] = useState(800)
  const room = useRef<HTMLDivElement>(null)
  const canvas = useRef<HTMLCanvasElement>(null)
  const coverage = reply.data
  useEffect(() => {
    const here = room.current
    if (!here) return
    const watch = new ResizeObserver(() => setWidth(here.clientWidth))
    watch.observe(here)
    return () => watch.disconnect()
  }, [])
  const wide = cellWidth(coverage?.frames.length ?? 1, width - 24)
  useEffect(() => {
    if (canvas.current && coverage) paintCoverage(canvas.current, coverage, wide, devicePixelRatio)
  }, [coverage, wide, asTable])
  function save() {
    canvas.current?.toBlob((blob) => {
      if (!blob) return
      const link = document.createElement('a')
      link.href = URL.createObjectURL(blob)
      link.download = `${t('coverage.file')}.png`
      link.click()
      setTimeout(() => URL.revokeObjectURL(link.href))
    })
  }
  return (
    <div ref={room} className="flex min-h-0 grow flex-col gap-3 overflow-auto p-3" data-part="overview">
      <Refusal code={reply.isError ? codeOf(reply.error) : null} />
      {reply.isPending && <p role="status">{t('loading')}</p>}
      {coverage && coverage.students.length === 0 && <p className="text-slate">{t('run.noOneYet')}</p>}
      {coverage && coverage.students.length > 0 && (
        <>
          <Spoken coverage={coverage} />
          <div className="flex flex-wrap items-center gap-2 text-sm">
            <Button aria-pressed={asTable} onClick={() => setTable(!asTable)}>
              {t(asTable ? 'coverage.asPicture' : 'coverage.asTable')}
            </Button>
            <a
              href={`/api/sessions/${session}/coverage.csv`}
              className="inline-flex items-center gap-2 rounded-lg border border-edge bg-paper px-3 py-1.5 font-semibold hover:bg-mist"
            >
              <Download size={16} aria-hidden="true" />
              {t('coverage.csv')}
            </a>
            {!asTable && (
              <Button onClick={save}>
                <Image size={16} aria-hidden="true" />
                {t('coverage.png')}
              </Button>
            )}
            <span className="text-slate">{t('coverage.legend')}</span>
          </div>
          {asTable ? (
            <Table coverage={coverage} onLook={onLook} />
          ) : (
            <canvas
              ref={canvas}
              dir="ltr"
              role="img"
              aria-label={t('coverage.picture', { students: coverage.students.length, frames: coverage.frames.length })}
              className="shrink-0 cursor-pointer"
              onPointerMove={(e) => {
                const at = cellAt(coverage, wide, e.nativeEvent.offsetX, e.nativeEvent.offsetY)
                e.currentTarget.title = at
                  ? `${coverage.students[at.row]!.name}, ${at.column + 1}: ${inWords(t, coverage.students[at.row]!.cells[at.column])}`
                  : ''
              }}
              onClick={(e) => {
                const at = cellAt(coverage, wide, e.nativeEvent.offsetX, e.nativeEvent.offsetY)
                if (at) onLook(coverage.students[at.row]!.id, coverage.frames[at.column]!.id)
              }}
            />
          )}
        </>
      )}
    </div>
  )
}

type Say = ReturnType<typeof useTranslation>['t']

/** What is in a cell, in words. */
function inWords(t: Say, cell: Cell | null | undefined) {
  if (!cell) return t('run.nothingYet')
  const parts: Array<[string, number | undefined]> = [
    ['coverage.notes', cell.notes],
    ['coverage.words', cell.words],
    ['coverage.ink', cell.ink],
    ['coverage.pieces', cell.pieces],
    ['coverage.right', cell.right],
    ['coverage.wrong', cell.wrong],
  ]
  const said = parts.flatMap(([key, count]) => (count ? t(key, { count }) : []))
  if (said.length === 0 && amount(cell) > 0) said.push(t('run.amount', { count: amount(cell) }))
  if (cell.done) said.push(t('states.done'))
  return said.join(', ')
}

/** How evenly the class takes part, in words first. */
function Spoken({ coverage: { spoken, students } }: { coverage: Coverage }) {
  const { t, i18n } = useTranslation()
  const silent = students.filter((s) => s.cells.every((c) => !amount(c)))
  const names = new Intl.ListFormat(i18n.language).format(silent.map((s) => s.name))
  return (
    <div role="status" className="rounded-xl border border-line bg-paper p-3">
      <p className="font-semibold">
        {spoken.is === 'nobody'
          ? t('coverage.nobody')
          : `${t('coverage.half', { count: spoken.half, of: spoken.of })} ${t(`coverage.${spoken.is}`)}`}
      </p>
      {silent.length > 0 && spoken.total > 0 && (
        <p className="max-h-16 overflow-auto">{t('coverage.silent', { count: silent.length, names })}</p>
      )}
      {spoken.total > 0 && <p className="text-sm text-slate">{t('coverage.gini', { gini: spoken.gini.toFixed(2) })}</p>}
    </div>
  )
}

function Table({ coverage: { students, frames }, onLook }: { coverage: Coverage } & Pick<Props, 'onLook'>) {
  const { t } = useTranslation()
  const buttons = students.length * frames.length <= BUTTONS
  return (
    <table className="border-collapse text-sm [&_td]:border [&_td]:border-line [&_td]:p-1.5 [&_th]:border [&_th]:border-line [&_th]:p-1.5">
      <thead>
        <tr>
          <th scope="col" className="text-start">
            {t('run.people')}
          </th>
          {frames.map((f, i) => (
            <th key={f.id} scope="col" className="text-start">
              {i + 1}. {f.title}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {students.map((s) => (
          <tr key={s.id}>
            <th scope="row" className="text-start">
              {s.name}
            </th>
            {s.cells.map((cell, i) => (
              <td key={frames[i]!.id}>
                {buttons ? (
                  <button
                    type="button"
                    className="text-start underline-offset-4 hover:underline"
                    onClick={() => onLook(s.id, frames[i]!.id)}
                  >
                    {inWords(t, cell)}
                  </button>
                ) : (
                  inWords(t, cell)
                )}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  )
}

import { ArrowDown, ArrowUp, Pencil, Plus, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import { Button } from '../kit/Button'
import { fresh } from '../polls/kinds'
import { pictureURL } from '../frame/pictures/pictures'
import type { Element, Frame } from '../wire/types.gen'
import { besides } from './editors/MarkEditors'
import { PollEditor } from './editors/PollEditor'
import { useDesk } from './useDesk'

type Poll = Element & { kind: 'poll' }

/** Where questions in a row are written and put in order. */
export function RowEditor({ frame, marks }: { frame: Frame; marks: readonly Element[] }) {
  const { t } = useTranslation()
  const desk = useDesk()
  const [editing, edit] = useState('')
  const polls = marks.filter((m): m is Poll => m.kind === 'poll').sort((a, b) => a.z - b.z)
  const open = polls.find((p) => p.id === editing)
  function add() {
    const mark = uuidv7()
    const poll = { text: '', ...fresh.choice() }
    desk.do(frame.id, { kind: 'add', add: { mark, x: 260, y: 160, w: 1080, h: 560, kind: 'poll', poll } })
    edit(mark)
  }
  /** Changes places with a neighbour. */
  const swap = (at: number, to: number) => {
    const [one, other] = [polls[at]!, polls[to]!]
    desk.do(frame.id, {
      kind: 'many',
      many: {
        steps: [
          { kind: 'set', set: { mark: one.id, z: other.z } },
          { kind: 'set', set: { mark: other.id, z: one.z } },
        ],
      },
    })
  }
  const small = 'grid size-10 place-items-center rounded-lg text-slate hover:bg-mist disabled:opacity-30'
  return (
    <section
      aria-label={t('row.title')}
      data-part="row-editor"
      className="flex h-[max(70vh,30rem)] min-w-0 grow flex-col overflow-auto p-5 lg:h-auto"
    >
      <ol className="mx-auto flex w-full max-w-3xl flex-col gap-2">
        {polls.map((p, i) => (
          <li key={p.id} className="flex items-center gap-2 rounded-xl border border-line bg-paper py-1.5 ps-4 pe-2">
            <span className="w-8 shrink-0 font-display text-xl font-semibold text-slate tabular-nums">{i + 1}</span>
            {p.poll.picture && (
              <img src={pictureURL(p.poll.picture)} alt="" className="size-10 shrink-0 rounded object-cover" />
            )}
            <button type="button" onClick={() => edit(p.id)} className="min-h-11 min-w-0 grow text-start">
              <span dir="auto" className="line-clamp-2 font-semibold">
                {p.poll.text || t('row.empty')}
              </span>
              <span className="block text-sm text-slate">{t(`question.kind_${p.poll.kind}`)}</span>
            </button>
            <button
              type="button"
              className={small}
              aria-label={t('row.write', { n: i + 1 })}
              onClick={() => edit(p.id)}
            >
              <Pencil size={17} aria-hidden="true" />
            </button>
            <button
              type="button"
              className={small}
              disabled={i === 0}
              aria-label={t('row.up', { n: i + 1 })}
              onClick={() => swap(i, i - 1)}
            >
              <ArrowUp size={17} aria-hidden="true" />
            </button>
            <button
              type="button"
              className={small}
              disabled={i === polls.length - 1}
              aria-label={t('row.down', { n: i + 1 })}
              onClick={() => swap(i, i + 1)}
            >
              <ArrowDown size={17} aria-hidden="true" />
            </button>
            <button
              type="button"
              className={small}
              aria-label={t('row.remove', { n: i + 1 })}
              onClick={() => desk.do(frame.id, { kind: 'remove', remove: { mark: p.id } })}
            >
              <Trash2 size={17} aria-hidden="true" />
            </button>
          </li>
        ))}
        <li>
          <Button look="main" onClick={add}>
            <Plus size={17} aria-hidden="true" />
            {t('row.add')}
          </Button>
        </li>
      </ol>
      {open && (
        <PollEditor
          key={open.id}
          mark={open}
          others={besides(polls, open.id)}
          onSave={(poll) => desk.do(frame.id, { kind: 'set', set: { mark: open.id, poll } })}
          onClose={() => edit('')}
        />
      )}
    </section>
  )
}

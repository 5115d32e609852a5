import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { call } from '../wire/http'
import type { BoardReply, Boards, FrameSource } from '../wire/types.gen'
import { ChooseFrames } from './ChooseFrames'
import { useDesk } from './useDesk'

/** Frames from one's other boards. */
export function FromBoards({ onAdd }: { onAdd: (from: FrameSource) => void }) {
  const { t } = useTranslation()
  const desk = useDesk()
  const boards = useQuery({ queryKey: ['boards'], queryFn: () => call<Boards>('GET', '/boards') })
  const others = boards.data?.boards.filter((b) => b.id !== desk.board) ?? []
  const [chosen, setChosen] = useState('')
  const board = useQuery({
    queryKey: ['board', chosen],
    queryFn: () => call<BoardReply>('GET', `/boards/${chosen}`),
    enabled: chosen !== '',
  })
  if (boards.data && others.length === 0) return <p className="text-slate">{t('add.noBoards')}</p>
  return (
    <>
      <label className="mb-4 flex items-center gap-3">
        <span className="font-semibold">{t('add.board')}</span>
        <select
          className="grow rounded-lg border border-edge bg-paper px-2 py-1.5"
          value={chosen}
          onChange={(e) => setChosen(e.target.value)}
        >
          <option value="">{t('add.chooseBoard')}</option>
          {others.map((b) => (
            <option key={b.id} value={b.id}>
              {b.title}
            </option>
          ))}
        </select>
      </label>
      {board.data && (
        <ChooseFrames
          key={chosen}
          pages={board.data.frames.map((frame) => ({ frame }))}
          onAdd={(pages) =>
            onAdd({ kind: 'board', board: { board: chosen, frames: pages.map((i) => board.data.frames[i]!.id) } })
          }
        />
      )}
    </>
  )
}

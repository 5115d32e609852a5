import { useEffect, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useParams, useSearchParams } from 'react-router'
import { Workplace } from '../frame/Workplace'
import { RefusalNotice } from '../kit/Notice'
import { Desk } from '../wire/desk'
import { BenchProvider } from '../wire/hooks/useLesson'
import { Bar } from './Bar'
import { LayersGroup } from './Layers'
import { MarkEditors } from './editors/MarkEditors'
import { Settings } from './editors/Settings'
import { RowEditor } from './RowEditor'
import { PrepareTools } from './Tools'
import { Trail } from './Trail'
import { TryPanel } from './TryPanel'
import { DeskProvider, useDesk, useDeskState } from './useDesk'
import '../words/prepare'
import { isRemoved } from '../rules/standing'
import { ToSignIn } from '../kit/ToSignIn'
import { useTitle } from '../kit/hooks/useTitle'

/** Where a board is prepared. */
export function Prepare() {
  const { board = '' } = useParams()
  return <Opened key={board} board={board} />
}

function Opened({ board }: { board: string }) {
  const [desk] = useState(() => new Desk(board))
  useEffect(() => {
    void desk.start()
    return () => desk.stop()
  }, [desk])
  return (
    <DeskProvider value={desk}>
      <BenchProvider value={desk}>
        <Screen />
        <RefusalNotice />
      </BenchProvider>
    </DeskProvider>
  )
}

function Screen() {
  const { t } = useTranslation()
  const desk = useDesk()
  const closed = useDeskState((s) => s.closed)
  useTitle(useDeskState((s) => s.outline?.title))
  const frames = useDeskState((s) => s.frames)
  const [search] = useSearchParams()
  const [chosen, setChosen] = useState({ id: search.get('frame') ?? '', at: 0 })
  const [layers, setLayers] = useState(false)
  const [trying, setTrying] = useState(false)
  // When the frame that is shown is deleted, the one that takes its place is shown.
  const frame = frames.find((f) => f.id === chosen.id) ?? frames[Math.min(chosen.at, frames.length - 1)]

  if (closed === 'sign-in-needed') return <ToSignIn />
  if (closed)
    return (
      <main className="grid min-h-full place-items-center p-6 text-center">
        <div>
          <h1 className="mb-4 text-2xl">{t(`refusal.${closed}`)}</h1>
          <Link to="/boards" className="rounded-lg bg-dusk px-4 py-2 font-semibold text-paper">
            {t('prepare.toBoards')}
          </Link>
        </div>
      </main>
    )
  if (!frame)
    return (
      <main className="grid min-h-full place-items-center">
        <p role="status">{t('loading')}</p>
      </main>
    )
  const open = (id: string) =>
    setChosen({
      id,
      at: Math.max(
        0,
        desk.state.getState().frames.findIndex((f) => f.id === id),
      ),
    })
  return (
    <div className="flex min-h-full flex-col lg:h-dvh lg:overflow-hidden">
      <Bar frame={frame.id} trying={trying} onTry={() => setTrying(!trying)} />
      <Trail frames={frames} at={frame.id} onOpen={open} />
      <main className="flex min-h-0 grow max-lg:flex-col">
        <Place key={`place ${frame.id}`} id={frame.id} layers={layers} onLayers={() => setLayers(!layers)} />
        {trying ? (
          <TryPanel board={desk.board} frame={frame.id} onClose={() => setTrying(false)} />
        ) : (
          <Settings key={`settings ${frame.id}`} frame={frame} />
        )}
      </main>
    </div>
  )
}

/** The frame that is being prepared. */
function Place({ id, layers, onLayers }: { id: string; layers: boolean; onLayers: () => void }) {
  const frame = useDeskState((s) => s.frames.find((f) => f.id === id))
  const all = useDeskState((s) => s.sheets.find((o) => o.sheet === id)?.marks)
  const marks = useMemo(() => (all ?? []).filter((m) => !isRemoved(m)), [all])
  if (!frame) return null
  if (frame.set) return <RowEditor frame={frame} marks={marks} />
  return (
    <div
      className="flex h-[max(70vh,30rem)] min-w-0 grow flex-col max-lg:shrink-0 lg:h-auto"
      data-layers={layers ? '' : undefined}
    >
      <Workplace
        frame={frame}
        sheet={id}
        marks={marks}
        me="staff"
        mayAdd
        preparing
        tools={<PrepareTools />}
        more={() => <LayersGroup shown={layers} onShow={onLayers} />}
      >
        <MarkEditors marks={marks} />
      </Workplace>
    </div>
  )
}

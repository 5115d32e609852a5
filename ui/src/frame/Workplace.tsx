import {
  Suspense,
  useCallback,
  useEffect,
  useEffectEvent,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type ReactNode,
  type RefObject,
} from 'react'
import { useTranslation } from 'react-i18next'
import { useStore } from 'zustand'
import { fetchParts, part } from '../kit/part'
import { useNarrow } from '../kit/hooks/useNarrow'
import { underEraser } from '../rules/apply'
import { laid } from '../rules/pieces'
import { Announcer } from './Announcer'
import { useClipboard } from './hand/clipboard'
import { useColumns } from './useColumns'
import type { Element, Frame } from '../wire/types.gen'
import { useBench, useBenchState } from '../wire/hooks/useLesson'
import { FrameView } from './FrameView'
import { draftMark } from './hand/draft'
import { Hand } from './hand/hand'
import { HandProvider } from './hand/useHand'
import { replied, useCounts } from './useCounts'
import type { Tool } from './hand/state'
import { keyOnFrame, leaveKeys } from './hand/keys'
import { Ledge } from './offers/Ledge'
import { Offer } from './offers/Offer'
import { Overlay } from './Overlay'
import { useUploads, type UploadsHere } from './pictures/Uploads'
import type { From } from './paint/columns'
import { ViewControls } from './View'
import { TourOffer, ViewButton } from './ViewButton'
import type { Window } from './viewSign'
import { Writing } from './hand/Writing'

const AuthorCard = part(() => import('./AuthorCard'))
const Help = part(() => import('./Help'))
const LinkDialog = part(() => import('./offers/LinkDialog'))
const ListView = part(() => import('./ListView'))
const SelectionBox = part(() => import('./SelectionBox'))
const UploadsView = part(() => import('./pictures/UploadsView'))
const Tour = part(() => import('./offers/Tour'))
// Small pictures of pieces are painted only where there are some.
const Tray = part(() => import('./offers/Tray'))
// Only frames whose notes are stacked, or answered, need these.
const StackBeside = part(() => import('./offers/StackBeside'))
const RepliesBeside = part(() => import('./offers/RepliesBeside'))
const Margin = part(() => import('./offers/Margin'))

type Props = {
  frame: Frame
  /** The sheet that work goes to; null when there is none here. */
  sheet: string | null
  marks: readonly Element[]
  /** Who works here: a participant's id or "staff". */
  me: string
  mayAdd: boolean
  prompt?: boolean
  /** The frame fills its place in both directions at first, and begins where there is something. */
  fills?: boolean
  /** From which note on each column is shown at first, and who is told when that is another. */
  from?: From
  onFrom?: (from: From) => void
  tool?: Tool
  poll?: (mark: Element & { kind: 'poll' }) => ReactNode
  cover?: (mark: Element & { kind: 'cover' }) => ReactNode
  /** The frame itself is prepared here: its own marks are those on the sheet. */
  preparing?: boolean
  /** More on the ledge, for the mark that is selected. */
  more?: (selected: Element | null) => ReactNode
  /** More tools. */
  tools?: ReactNode
  /** Windows of this frame. */
  children?: ReactNode
}

/** The keys of the workplace, and pictures dropped on it. */
function useListening(at: RefObject<HTMLDivElement | null>, hand: Hand, { ask, add }: UploadsHere, help: () => void) {
  const uses = useRef({ picture: ask, help })
  useEffect(() => {
    uses.current = { picture: ask, help }
  })
  useEffect(() => {
    const here = at.current
    if (!here) return
    const key = (e: KeyboardEvent) => {
      // Where nothing has the focus, only what every program shares works.
      const nowhere = e.target === document.body && (e.ctrlKey || e.metaKey)
      if (e.target instanceof HTMLElement && e.target.closest('[role="dialog"] button, [role="menu"]')) return
      const inside = nowhere || (e.target instanceof Node && here.contains(e.target))
      // A window around the frame leaves Escape to it as long as it has something to leave.
      const free = !e.defaultPrevented || (e.key === 'Escape' && here.dataset.ownEscape !== undefined)
      if (!inside || !free || !keyOnFrame(hand, e, uses.current)) return
      e.preventDefault()
      if (nowhere) here.focus({ preventScroll: true })
    }
    const over = (e: DragEvent) => hand.ground.works && e.dataTransfer?.types.includes('Files') && e.preventDefault()
    const drop = (e: DragEvent) => {
      const files = [...(e.dataTransfer?.files ?? [])]
      if (!hand.ground.works || files.length === 0) return
      e.preventDefault()
      add(files, hand.toFrame(e.clientX, e.clientY))
    }
    // On the document, so that the parts of the frame have had theirs before.
    document.addEventListener('keydown', key)
    here.addEventListener('dragover', over)
    here.addEventListener('drop', drop)
    return () => {
      document.removeEventListener('keydown', key)
      here.removeEventListener('dragover', over)
      here.removeEventListener('drop', drop)
    }
  }, [at, hand, add])
}

const noHeads: never[] = []

/** A frame with its ledge: everything a hand can do on it. */
export function Workplace({
  frame,
  sheet,
  marks: onSheet,
  me,
  mayAdd,
  prompt = true,
  fills = false,
  from: first,
  onFrom,
  tool = 'select',
  poll,
  cover,
  preparing = false,
  more,
  tools,
  children,
}: Props) {
  const { t } = useTranslation()
  const bench = useBench()
  const people = useBenchState((s) => s.people)
  const canUndo = useBenchState((s) => sheet !== null && s.canUndo.has(sheet))
  const canRedo = useBenchState((s) => sheet !== null && s.canRedo.has(sheet))
  const works = mayAdd && sheet !== null
  const { marks, tray, margin, replies, under } = useMemo(
    () =>
      preparing
        ? {
            marks: onSheet.filter((m) => !m.tray),
            tray: onSheet.filter((m) => m.tray),
            margin: [],
            replies: [],
            under: new Map<string, Element[]>(),
          }
        : laid(frame, onSheet),
    [frame, onSheet, preparing],
  )
  const [hand] = useState(
    () => new Hand(bench, { frame, sheet, marks, saved: marks, me, works, preparing, columns: null }, tool),
  )
  const [open, setOpen] = useState<Window | null>(null)
  const narrow = useNarrow()
  const at = useRef<HTMLDivElement>(null)
  const draft = useStore(hand.state, (s) => s.draft)
  const settings = useStore(hand.state, (s) => s.settings)
  const erasing = useStore(hand.state, (s) => s.erasing)
  const editing = useStore(hand.state, (s) => s.editing)
  const held = useStore(hand.state, (s) => s.tool)
  const selected = useStore(hand.state, (s) => s.selected)

  const from = useStore(hand.state, (s) => s.from)
  const told = useEffectEvent((next: From) => onFrom?.(next))
  useEffect(() => {
    if (first) hand.set({ from: first })
    return hand.state.subscribe((now, before) => now.from !== before.from && told(now.from))
    // Only at first: afterwards the hand knows better.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [hand])
  const nameOf = useCallback(
    (author: string | undefined) =>
      author === 'staff' ? t('frame.teacher') : (people.get(author ?? '')?.name ?? t('frame.somebody')),
    [people, t],
  )
  const { marks: standing, columns } = useColumns(frame, marks, from, nameOf)
  const shown = useMemo(() => {
    let all = standing
    if (erasing && works) {
      const map = new Map(standing.map((m) => [m.id, m]))
      const step = { kind: 'erase', erase: erasing } as const
      const under = underEraser(map, hand.mayChange, step, '')
      for (const { mark, pieces } of under) {
        map.delete(mark.id)
        for (const piece of pieces) map.set(piece.id, piece)
      }
      if (under.length > 0) all = [...map.values()].sort((a, b) => a.z - b.z)
    }
    return draft && !all.some((m) => m.id === draft.id) ? [...all, draftMark(draft, settings, me)] : all
  }, [standing, erasing, draft, settings, me, works, hand])

  hand.stand({ frame, sheet, marks: shown, saved: marks, me, works, preparing, columns }, nameOf)
  useEffect(() => hand.set({ writesBelow: narrow }), [hand, narrow])
  useCounts(hand, replies, under)
  useEffect(() => () => leaveKeys(hand), [hand, frame.id, sheet, held])
  useEffect(() => void fetchParts(), [])
  useLayoutEffect(() => {
    if (fills) hand.fill()
  }, [hand, fills])
  const uploads = useUploads(hand)
  const settled = useSettled()
  useClipboard(at, hand, uploads.add)

  const one = selected.size === 1 ? (shown.find((m) => selected.has(m.id)) ?? null) : null
  const writing = narrow && editing ? shown.find((m) => m.id === editing) : undefined
  useListening(at, hand, uploads, () => setOpen('help'))
  return (
    <HandProvider value={hand}>
      <div
        ref={at}
        tabIndex={-1}
        data-part="workplace"
        data-tool={held}
        data-own-escape={editing || held !== 'select' || selected.size > 0 ? '' : undefined}
        className="flex min-h-0 grow flex-col outline-none turned:flex-row"
      >
        <button
          type="button"
          className="sr-only focus-visible:not-sr-only focus-visible:absolute focus-visible:z-30 focus-visible:m-2 focus-visible:rounded-lg focus-visible:bg-dusk focus-visible:px-3 focus-visible:py-2 focus-visible:font-semibold focus-visible:text-paper"
          onClick={() => at.current?.querySelector<HTMLElement>('[data-part="tools-row"] [tabindex="0"]')?.focus()}
        >
          {t('frame.toTools')}
        </button>
        <p id="mark-keys" hidden>
          {t('frame.keys')}
        </p>
        <div className="flex min-h-0 min-w-0 grow max-sm:flex-col">
          {tray.length > 0 && (
            <Suspense fallback={null}>
              <Tray pieces={tray} />
            </Suspense>
          )}
          <div className="relative min-h-0 min-w-0 grow p-2">
            <FrameView
              frame={frame}
              marks={shown}
              prompt={prompt}
              poll={poll}
              cover={cover}
              heads={columns?.heads ?? noHeads}
              over={
                <>
                  <Overlay sheet={sheet} marks={shown} />
                  {selected.size > 0 && (
                    <Suspense fallback={null}>
                      <SelectionBox marks={shown} />
                    </Suspense>
                  )}
                </>
              }
            />
            {!preparing && settled && (
              <Suspense fallback={null}>
                <AuthorCard marks={shown} />
              </Suspense>
            )}
            <ViewButton marks={shown} onOpen={setOpen} />
            <ViewControls marks={shown} />
            <Offer />
            {(uploads.asking || uploads.camera || uploads.running.length > 0) && (
              <Suspense fallback={null}>
                <UploadsView uploads={uploads} />
              </Suspense>
            )}
          </div>
          {one && under.has(one.id) && (
            <Suspense fallback={null}>
              <StackBeside top={one} under={under.get(one.id)!} />
            </Suspense>
          )}
          {one?.kind === 'note' && (frame.replies || replied(replies, one.id).length > 0) && (
            <Suspense fallback={null}>
              <RepliesBeside note={one} replies={replied(replies, one.id)} />
            </Suspense>
          )}
          {margin.length > 0 && (
            <Suspense fallback={null}>
              <Margin notes={margin} />
            </Suspense>
          )}
        </div>
        {writing && (
          <div className="flex items-end gap-2 border-t border-line bg-mist p-3">
            <div className="relative grow rounded-lg border-2 border-dusk bg-paper p-2 text-lg">
              <Writing key={writing.id} mark={writing} />
            </div>
            <button
              type="button"
              className="rounded-lg bg-dusk px-4 py-3 font-semibold text-paper"
              onClick={() => hand.edit(null)}
            >
              {t('ledge.done')}
            </button>
          </div>
        )}
        <Ledge
          works={works}
          undo={canUndo && sheet !== null ? hand.undo : null}
          redo={canRedo && sheet !== null ? hand.redo : null}
          onPicture={uploads.ask}
          onLink={() => setOpen('link')}
          tools={tools}
          last={<TourOffer onOpen={setOpen} />}
        >
          {more?.(one)}
        </Ledge>
        {children}
        <Announcer marks={onSheet} />
        <Suspense fallback={null}>
          {open === 'help' && <Help onClose={() => setOpen(null)} />}
          {open === 'link' && <LinkDialog onClose={() => setOpen(null)} />}
          {open === 'list' && (
            <ListView frame={frame} marks={[...marks, ...margin]} replies={replies} onClose={() => setOpen(null)} />
          )}
          {open === 'tour' && <Tour staff={me === 'staff'} onClose={() => setOpen(null)} />}
        </Suspense>
      </div>
    </HandProvider>
  )
}

/** What need not be there at once waits until the first things are on the screen. */
const SETTLED_MS = 2500

function useSettled(): boolean {
  const [settled, settle] = useState(false)
  useEffect(() => {
    const timer = setTimeout(() => settle(true), SETTLED_MS)
    return () => clearTimeout(timer)
  }, [])
  return settled
}

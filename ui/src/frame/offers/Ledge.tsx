import {
  ArrowUpRight,
  Brush,
  Ellipsis,
  Eraser,
  Hand as HandIcon,
  Highlighter,
  Image,
  Link2,
  MousePointerClick,
  PenLine,
  PenTool,
  Redo2,
  Shapes,
  Stamp,
  StickyNote,
  Type,
  Undo2,
  type LucideIcon,
} from 'lucide-react'
import { Suspense, useState, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { part } from '../../kit/part'
import { useNarrow } from '../../kit/hooks/useNarrow'
import { useRoving } from '../../kit/hooks/useRoving'
import { isInk, type Tool } from '../hand/state'
import { useHand, useHandState } from '../hand/useHand'
import { keyOf } from '../hand/keys'
import { ToolButton } from './ledgeParts'
import { CatchOffers } from './CatchOffers'

// What is done with marks is fetched when the first one is picked up.
const MarkOffers = part(() => import('./MarkOffers'))
const ToolOffers = part(() => import('./ToolOffers'))

type Props = {
  works: boolean
  undo: (() => void) | null
  redo: (() => void) | null
  onPicture: () => void
  onLink: () => void
  /** More tools. */
  tools?: ReactNode
  /** Stands at the end of the tools. */
  last?: ReactNode
  /** More for the ledge: what a teacher may do with the selected mark, the saved sign. */
  children?: ReactNode
}

const nibs: Array<{ tool: Tool; icon: LucideIcon }> = [
  { tool: 'pen', icon: PenLine },
  { tool: 'marker', icon: PenTool },
  { tool: 'highlighter', icon: Highlighter },
  { tool: 'brush', icon: Brush },
]

/** The tools, lying under the frame, with what the chosen one offers right on the ledge. */
export function Ledge({ works, undo, redo, onPicture, onLink, tools, last, children }: Props) {
  const { t } = useTranslation()
  const hand = useHand()
  const tool = useHandState((s) => s.tool)
  const picks = useHandState((s) => s.selected.size > 0)
  const offers = useRoving<HTMLDivElement>()
  const row = useRoving<HTMLDivElement>()
  const [lastInk, setLastInk] = useState<Tool>('pen')
  const [folded, setFolded] = useState(true)
  const narrow = useNarrow()
  const all = !narrow || !folded
  const ink = isInk(tool) ? tool : lastInk
  const inkIcon = nibs.find((n) => n.tool === ink)!.icon
  const hold = (next: Tool) => {
    if (isInk(next)) setLastInk(next)
    hand.hold(next)
  }
  const named = (name: string) => ({ name: t(`ledge.${name}`), hotkey: keyOf(name) })
  return (
    <div
      role="toolbar"
      aria-label={t('ledge.label')}
      className="flex flex-col border-t-3 border-edge bg-paper turned:w-44 turned:shrink-0 turned:overflow-y-auto turned:border-s-3 turned:border-t-0"
      data-part="ledge"
    >
      <div
        ref={offers}
        className="flex min-h-12 items-center gap-x-2 gap-y-0.5 border-b border-line bg-snow px-2 max-sm:overflow-x-auto sm:flex-wrap turned:order-last turned:border-b-0 turned:[&_[role=group]]:flex-wrap"
        data-part="offers"
      >
        {isInk(tool) && works && (
          <div role="group" aria-label={t('ledge.nib')} className="flex items-center">
            {nibs.map((n) => (
              <ToolButton
                key={n.tool}
                row
                icon={n.icon}
                name={t(`ledge.${n.tool}`)}
                on={tool === n.tool}
                onClick={() => hold(n.tool)}
              />
            ))}
          </div>
        )}
        {works && tool !== 'select' && (
          <Suspense fallback={null}>
            <ToolOffers />
          </Suspense>
        )}
        {tool === 'select' &&
          (picks ? (
            <Suspense fallback={null}>
              <MarkOffers>{children}</MarkOffers>
            </Suspense>
          ) : (
            <CatchOffers>{children}</CatchOffers>
          ))}
      </div>
      <div
        ref={row}
        className="flex flex-wrap items-center gap-x-0 gap-y-0.5 px-2 py-1 sm:gap-x-0.5"
        data-part="tools-row"
      >
        <ToolButton icon={HandIcon} {...named('select')} on={tool === 'select'} onClick={() => hold('select')} />
        {works && (
          <>
            <ToolButton
              icon={inkIcon}
              {...named('pen')}
              name={t('ledge.draw')}
              on={isInk(tool)}
              onClick={() => hold(ink)}
            />
            <ToolButton icon={Eraser} {...named('eraser')} on={tool === 'eraser'} onClick={() => hold('eraser')} />
            <ToolButton icon={StickyNote} {...named('note')} onClick={() => hand.begin('note')} />
            <ToolButton icon={Type} {...named('text')} onClick={() => hand.begin('text')} />
            {all && (
              <>
                <ToolButton icon={Shapes} {...named('shape')} on={tool === 'shape'} onClick={() => hold('shape')} />
                <ToolButton
                  icon={ArrowUpRight}
                  {...named('connector')}
                  on={tool === 'connector'}
                  onClick={() => hold('connector')}
                />
                <ToolButton icon={Stamp} {...named('stamp')} on={tool === 'stamp'} onClick={() => hold('stamp')} />
                <ToolButton icon={Image} {...named('picture')} onClick={onPicture} />
                <ToolButton icon={Link2} {...named('link')} onClick={onLink} />
                {tools}
                <ToolButton
                  icon={MousePointerClick}
                  {...named('pointer')}
                  on={tool === 'pointer'}
                  onClick={() => hold('pointer')}
                />
              </>
            )}
            <span className="mx-1 hidden h-8 border-s border-line sm:block turned:hidden" />
            <ToolButton icon={Undo2} name={t('ledge.undo')} hotkey="Ctrl Z" onClick={undo} />
            <ToolButton icon={Redo2} name={t('ledge.redo')} hotkey="Ctrl Y" onClick={redo} />
            {narrow && (
              <ToolButton
                icon={Ellipsis}
                name={folded ? t('ledge.more') : t('ledge.fewer')}
                expanded={!folded}
                onClick={() => setFolded(!folded)}
              />
            )}
          </>
        )}
        {last}
      </div>
    </div>
  )
}

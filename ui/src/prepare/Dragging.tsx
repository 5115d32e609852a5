import {
  closestCenter,
  DndContext,
  MouseSensor,
  TouchSensor,
  useSensor,
  useSensors,
  type Announcements,
} from '@dnd-kit/core'
import { horizontalListSortingStrategy, SortableContext } from '@dnd-kit/sortable'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import type { Frame } from '../wire/types.gen'

/** How far a mouse moves, and how long a finger rests, before it takes a frame along. */
const TAKES = { mouse: { distance: 8 }, finger: { delay: 250, tolerance: 8 } }

type Props = {
  frames: Frame[]
  /** A frame was let go: it goes before the place with this number, counted from 0. */
  onMove: (frame: string, before: number) => void
  children: ReactNode
}

/** Stations that a mouse or a resting finger takes to another place; the keys of the trail do the same. */
export function Dragging({ frames, onMove, children }: Props) {
  const { t } = useTranslation()
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: TAKES.mouse }),
    useSensor(TouchSensor, { activationConstraint: TAKES.finger }),
  )
  const ids = frames.map((f) => f.id)
  const nth = (id: unknown) => ids.indexOf(id as string) + 1
  const announcements: Announcements = {
    onDragStart: ({ active }) => t('prepare.dragged', { n: nth(active.id) }),
    onDragOver: ({ over }) => (over ? t('prepare.draggedTo', { n: nth(over.id) }) : undefined),
    onDragEnd: ({ over }) => (over ? t('prepare.letGoAt', { n: nth(over.id) }) : undefined),
    onDragCancel: () => t('prepare.notMoved'),
  }
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      accessibility={{ container: document.body, announcements, screenReaderInstructions: { draggable: '' } }}
      onDragEnd={({ active, over }) => {
        if (!over || over.id === active.id) return
        const [from, to] = [nth(active.id), nth(over.id)]
        onMove(active.id as string, to > from ? to : to - 1)
      }}
    >
      <SortableContext items={ids} strategy={horizontalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  )
}

import { GripVertical } from 'lucide-react'

type Props = ReturnType<ReturnType<typeof import('./useDrag').useDrag>['handle']>

/** By what something is dragged; who uses keys or a screen reader has the buttons beside it. */
export function Grip(handle: Props) {
  return (
    <span
      {...handle}
      aria-hidden="true"
      className="grid size-[2em] shrink-0 cursor-grab place-items-center rounded-[0.4em] text-slate hover:bg-mist active:cursor-grabbing"
    >
      <GripVertical size="1.2em" />
    </span>
  )
}

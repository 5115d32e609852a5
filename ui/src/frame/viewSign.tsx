import { Eye } from 'lucide-react'

/** The windows of a workplace. */
export type Window = 'help' | 'link' | 'list' | 'tour'

export const viewButton = (on: boolean) =>
  `absolute end-3 top-3 z-10 inline-flex h-9 items-center gap-1.5 rounded-lg border px-2.5 text-[13px] font-semibold ${on ? 'border-dusk bg-dusk-soft text-dusk' : 'border-edge bg-paper text-slate hover:bg-mist'}`

export const ViewSign = ({ word }: { word: string }) => (
  <>
    <Eye size={17} aria-hidden="true" />
    <span className="turned:sr-only">{word}</span>
  </>
)

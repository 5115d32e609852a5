import { Images, ListChecks, Square, Table2 } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import { freePlace } from '../frame/paint/geometry'
import { useHand } from '../frame/hand/useHand'
import { ToolButton } from '../frame/offers/ledgeParts'
import { fresh } from '../polls/kinds'
import type { LibraryItem, Step } from '../wire/types.gen'
import { LibraryDialog } from './LibraryDialog'

/** What only a prepared frame can have: covers, tables and polls; and the school's pictures. */
export function PrepareTools() {
  const { t } = useTranslation()
  const hand = useHand()
  const [library, setLibrary] = useState(false)
  function put(w: number, h: number, body: object, opens: boolean) {
    const mark = uuidv7()
    const { frame, marks } = hand.ground
    const at = freePlace([...frame.prepared, ...marks], w, h, hand.middle())
    hand.do([{ kind: 'add', add: { mark, ...at, w, h, ...body } } as Step])
    hand.set({ tool: 'select', selected: new Set([mark]), editing: opens ? mark : null })
  }
  /** Puts a picture of the library on the frame, so large that it can be seen and others have room. */
  function putPicture({ id, name, width, height }: LibraryItem) {
    const k = Math.min(1, 560 / width, 420 / height)
    const side = (n: number) => Math.max(40, Math.round(n * k))
    put(side(width), side(height), { kind: 'picture', picture: { picture: id, alt: name } }, false)
    setLibrary(false)
  }
  const rows = [
    ['', '', ''],
    ['', '', ''],
    ['', '', ''],
  ]
  const poll = { text: '', ...fresh.choice() }
  return (
    <>
      <span className="mx-1 hidden h-8 border-s border-line sm:block" />
      <ToolButton
        icon={Square}
        name={t('prepare.cover')}
        onClick={() => put(480, 240, { kind: 'cover', cover: { tint: 'lilac' } }, false)}
      />
      <ToolButton
        icon={Table2}
        name={t('prepare.table')}
        onClick={() => put(720, 240, { kind: 'table', table: { rows } }, true)}
      />
      <ToolButton
        icon={ListChecks}
        name={t('prepare.poll')}
        onClick={() => put(900, 460, { kind: 'poll', poll }, true)}
      />
      <ToolButton icon={Images} name={t('prepare.library')} onClick={() => setLibrary(true)} />
      {library && <LibraryDialog onClose={() => setLibrary(false)} onPick={putPicture} />}
    </>
  )
}

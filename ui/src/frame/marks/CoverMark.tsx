import { useTranslation } from 'react-i18next'
import type { Element } from '../../wire/types.gen'
import { tintGround } from '../paint/colours'
import { LINE, SHAPE_TEXT } from '../paint/geometry'

/** How a cover looks, wherever it lies. */
export const coverLook = (mark: Element & { kind: 'cover' }) =>
  `grid place-items-center overflow-hidden border-3 border-edge p-4 text-center break-words text-night ${tintGround[mark.cover.tint]}`

/** A cover that nobody here can lift. What lies under it was never sent. */
export function CoverMark({ mark }: { mark: Element & { kind: 'cover' } }) {
  const { t } = useTranslation()
  const { x, y, w, h } = mark
  return (
    <div
      role="img"
      aria-label={[t('frame.covered'), mark.cover.text].filter(Boolean).join(': ')}
      className={`absolute ${coverLook(mark)}`}
      style={{ left: x, top: y, width: w, height: h, fontSize: SHAPE_TEXT, lineHeight: LINE }}
    >
      <span dir="auto">{mark.cover.text}</span>
    </div>
  )
}

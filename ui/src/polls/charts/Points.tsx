import { useTranslation } from 'react-i18next'
import { pictureURL } from '../../frame/pictures/pictures'
import type { PointsChart } from '../../wire/types.gen'
import { PictureAreas } from './PictureAreas'

/** Where all pointed in a picture: the more on one place, the darker. */
export function Points({ chart }: { chart: PointsChart }) {
  const { t } = useTranslation()
  return (
    <figure dir="ltr">
      <div className="relative w-fit max-w-full">
        <img src={pictureURL(chart.picture)} alt="" className="block max-h-[55vh] max-w-full rounded-[0.4em]" />
        <PictureAreas areas={chart.areas ?? []} />
        {chart.at.map((p, i) => (
          <span
            key={i}
            aria-hidden="true"
            className="absolute size-[1.1em] -translate-1/2 rounded-full border border-paper bg-glow/55"
            style={{ left: `${p.x * 100}%`, top: `${p.y * 100}%` }}
          />
        ))}
      </div>
      <figcaption className="text-[0.85em] text-slate">
        {t('poll.pointed', { count: chart.at.length })}
        {(chart.areas ?? []).map((a) => (
          <span key={a.id} className="ms-[0.8em]">
            {a.name || a.mistake}: <b>{a.count}</b>
            {a.right && ` ✓`}
          </span>
        ))}
      </figcaption>
    </figure>
  )
}

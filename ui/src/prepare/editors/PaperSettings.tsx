import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Paper as Ground } from '../../frame/paint/Paper'
import { FRAME } from '../../frame/paint/geometry'
import { codeOf, send } from '../../wire/http'
import type { Axis, Paper, PaperKind, Uploaded } from '../../wire/types.gen'
import { NumberField } from './NumberField'
import { Typed } from '../../kit/fields/Typed'
import { useDesk } from '../useDesk'

const kinds: PaperKind[] = [
  'plain',
  'dotted',
  'ruled',
  'squared',
  'handwriting',
  'axes',
  'number-line',
  'staff',
  'picture',
]
/** Distances that each paper offers, narrow to wide, in frame units. */
const steps: Partial<Record<PaperKind, readonly number[]>> = {
  dotted: [25, 40, 60],
  ruled: [40, 50, 80],
  squared: [25, 40, 50, 80],
  handwriting: [110, 150, 210],
  staff: [90, 120, 160],
}
const usual: Partial<Record<PaperKind, number>> = { dotted: 40, ruled: 50, squared: 40, handwriting: 150, staff: 120 }
const axis: Axis = { from: -10, to: 10, step: 1 }

/** A paper of a kind, with what that kind needs. */
const asKind = (paper: Paper, kind: PaperKind): Paper => ({
  ...paper,
  kind,
  step: undefined,
  ...(kind === 'axes' || kind === 'number-line' ? { x: paper.x ?? axis } : {}),
  ...(kind === 'axes' ? { y: paper.y ?? { ...axis, from: -5, to: 5 } } : {}),
})

/** The ground of a frame: chosen by its look, with what its kind can be set to. */
export function PaperSettings({ paper, onSet }: { paper: Paper; onSet: (paper: Paper) => void }) {
  const { t } = useTranslation()
  const desk = useDesk()
  const file = useRef<HTMLInputElement>(null)
  const [busy, setBusy] = useState<number | null>(null)

  async function bring(picture: File) {
    setBusy(0)
    try {
      const up = await send<Uploaded>(`/pictures?name=${encodeURIComponent(picture.name)}`, picture, setBusy).done
      onSet({ ...paper, kind: 'picture', picture: up.picture, alt: '' })
    } catch (error) {
      desk.tell(codeOf(error))
    }
    setBusy(null)
  }
  const pick = (kind: PaperKind) => {
    if (kind === 'picture' && !paper.picture) file.current?.click()
    else onSet(asKind(paper, kind))
  }
  const offered = steps[paper.kind]
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="mb-1 text-sm font-semibold">{t('prepare.paper')}</legend>
      <div className="grid grid-cols-3 gap-1.5">
        {kinds.map((kind) => (
          <label
            key={kind}
            className={`relative cursor-pointer overflow-hidden rounded-lg border-2 bg-paper text-center text-xs has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-dusk ${kind === paper.kind ? 'border-dusk font-semibold text-dusk' : 'border-line text-slate hover:border-edge'}`}
          >
            <input
              type="radio"
              name="paper"
              checked={kind === paper.kind}
              onChange={() => pick(kind)}
              className="sr-only"
            />
            <PaperPicture kind={kind} paper={paper} />
            <span className="block px-0.5 py-1 leading-tight">{t(`papers.${kind}`)}</span>
          </label>
        ))}
      </div>
      <input
        ref={file}
        type="file"
        accept="image/*"
        aria-label={t('prepare.paperPicture')}
        tabIndex={-1}
        className="sr-only"
        onChange={(e) => {
          const picture = e.target.files?.[0]
          if (picture) void bring(picture)
          e.target.value = ''
        }}
      />
      {busy !== null && (
        <progress aria-label={t('prepare.paperPicture')} value={busy} max={1} className="h-2 w-full accent-dusk" />
      )}
      {offered && (
        <label className="flex items-center justify-between gap-3 text-sm">
          {t('prepare.distance')}
          <select
            className="rounded-lg border border-edge bg-paper px-2 py-1.5"
            value={paper.step ?? usual[paper.kind]}
            onChange={(e) => onSet({ ...paper, step: Number(e.target.value) })}
          >
            {offered.map((step, i) => (
              <option key={step} value={step}>
                {t(`prepare.distance_${offered.length === 4 ? i : i + (i > 1 ? 1 : 0)}`)}
              </option>
            ))}
          </select>
        </label>
      )}
      {paper.kind === 'squared' && (
        <Typed
          label={t('prepare.unit')}
          value={paper.unit ?? ''}
          limit={40}
          onChange={(unit) => onSet({ ...paper, unit })}
        />
      )}
      {paper.kind === 'handwriting' && (
        <label className="flex items-center justify-between gap-3 text-sm">
          {t('prepare.ruling')}
          <select
            className="rounded-lg border border-edge bg-paper px-2 py-1.5"
            value={paper.ruling ?? 'even'}
            onChange={(e) => onSet({ ...paper, ruling: e.target.value as Paper['ruling'] })}
          >
            {(['even', 'tall', 'low'] as const).map((r) => (
              <option key={r} value={r}>
                {t(`prepare.ruling_${r}`)}
              </option>
            ))}
          </select>
        </label>
      )}
      {(paper.kind === 'axes' || paper.kind === 'number-line') && paper.x && (
        <AxisSettings
          name={paper.kind === 'axes' ? t('prepare.axisX') : t('prepare.axis')}
          axis={paper.x}
          onSet={(x) => onSet({ ...paper, x })}
        />
      )}
      {paper.kind === 'axes' && paper.y && (
        <>
          <AxisSettings name={t('prepare.axisY')} axis={paper.y} onSet={(y) => onSet({ ...paper, y })} />
          <label className="flex items-center gap-2 text-sm">
            <input
              type="checkbox"
              className="size-4 accent-dusk"
              checked={!paper.bare}
              onChange={(e) => onSet({ ...paper, bare: !e.target.checked })}
            />
            {t('prepare.grid')}
          </label>
        </>
      )}
      {paper.kind === 'picture' && (
        <>
          <button
            type="button"
            className="self-start text-sm font-semibold text-dusk underline underline-offset-4"
            onClick={() => file.current?.click()}
          >
            {t('prepare.otherPicture')}
          </button>
          <Typed
            label={t('prepare.pictureAlt')}
            value={paper.alt ?? ''}
            limit={20000}
            rows={2}
            onChange={(alt) => onSet({ ...paper, alt })}
          />
        </>
      )}
      <label className="flex items-center gap-2 text-sm">
        <input
          type="checkbox"
          className="size-4 accent-dusk"
          checked={paper.dark ?? false}
          onChange={(e) => onSet({ ...paper, dark: e.target.checked })}
        />
        {t('prepare.dark')}
      </label>
    </fieldset>
  )
}

/** A paper in small, coarser than it is so that it can be told apart. */
function PaperPicture({ kind, paper }: { kind: PaperKind; paper: Paper }) {
  const coarse = kind === 'squared' || kind === 'dotted' ? 4 : kind === 'ruled' ? 3 : 2
  const shown: Paper =
    kind === 'axes'
      ? { kind, x: { from: -3, to: 3, step: 1 }, y: { from: -2, to: 2, step: 1 } }
      : kind === 'number-line'
        ? { kind, x: { from: 0, to: 4, step: 1 } }
        : { kind, step: usual[kind] && usual[kind] * coarse, picture: paper.picture }
  return (
    <span aria-hidden="true" className="relative block aspect-8/5 overflow-hidden border-b border-line bg-paper">
      {kind === 'picture' && !paper.picture ? (
        <span className="grid h-full place-items-center text-xl">+</span>
      ) : (
        <span
          className="absolute top-0 left-0 block origin-top-left scale-[0.0575]"
          style={{ width: FRAME.width, height: FRAME.height }}
        >
          <Ground bold paper={shown} />
        </span>
      )}
    </span>
  )
}

function AxisSettings({ name, axis, onSet }: { name: string; axis: Axis; onSet: (axis: Axis) => void }) {
  const { t } = useTranslation()
  const sound = (next: Axis) => next.from < next.to && next.step > 0 && (next.to - next.from) / next.step <= 100
  const change = (part: Partial<Axis>) => {
    const next = { ...axis, ...part }
    if (sound(next)) onSet(next)
    return sound(next)
  }
  return (
    <div role="group" aria-label={name} className="flex flex-col gap-1.5 rounded-lg bg-paper p-2">
      <p className="text-sm font-semibold">{name}</p>
      <div className="grid grid-cols-3 gap-1.5">
        <NumberField label={t('prepare.from')} value={axis.from} onChange={(from) => change({ from })} />
        <NumberField label={t('prepare.to')} value={axis.to} onChange={(to) => change({ to })} />
        <NumberField label={t('prepare.step')} value={axis.step} onChange={(step) => change({ step })} />
      </div>
      <Typed
        label={t('prepare.axisLabel')}
        value={axis.label ?? ''}
        limit={40}
        onChange={(label) => void change({ label })}
      />
    </div>
  )
}

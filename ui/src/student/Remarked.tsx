import { MessageSquare } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { Remarks, remarksOn } from '../frame/Remarks'
import type { Shown } from '../wire/sheets'
import '../words/windows'

/** What others have said about the work that lies here, for whose work it is. */
export default function Remarked({ sheet, me }: { sheet: Shown; me: string }) {
  const { t } = useTranslation()
  const remarks = remarksOn(sheet.marks, me)
  return (
    <details data-part="remarked" className="max-h-[45dvh] overflow-auto border-b border-line bg-paper px-4 py-1.5">
      <summary className="cursor-pointer font-semibold text-dusk">
        <MessageSquare size={16} aria-hidden="true" className="me-1.5 inline" />
        {t('remarks.about', { count: remarks.length })}
      </summary>
      <div className="mx-auto max-w-3xl py-2">
        <Remarks sheet={sheet.sheet} remarks={remarks} me={me} may={false} />
      </div>
    </details>
  )
}

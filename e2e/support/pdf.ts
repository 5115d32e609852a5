/** A PDF with a landscape page for each text (ISO 32000-1, 7.5). */
export function pdf(...texts: string[]): Buffer {
  let out = '%PDF-1.4\n'
  const at: number[] = []
  const object = (body: string) => {
    at.push(out.length)
    out += `${at.length} 0 obj\n${body}\nendobj\n`
  }
  object('<< /Type /Catalog /Pages 2 0 R >>')
  object(`<< /Type /Pages /Kids [${texts.map((_, i) => `${4 + 2 * i} 0 R`).join(' ')}] /Count ${texts.length} >>`)
  object('<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>')
  texts.forEach((text, i) => {
    const content = `BT /F 30 Tf 72 500 Td (${text}) Tj ET 2 w 72 480 m 700 480 l S 100 200 250 180 re S`
    object(
      `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 842 526] /Contents ${5 + 2 * i} 0 R /Resources << /Font << /F 3 0 R >> >> >>`,
    )
    object(`<< /Length ${content.length} >>\nstream\n${content}\nendstream`)
  })
  const table = out.length
  const rows = at.map((offset) => `${String(offset).padStart(10, '0')} 00000 n \n`).join('')
  out += `xref\n0 ${at.length + 1}\n0000000000 65535 f \n${rows}trailer\n<< /Size ${at.length + 1} /Root 1 0 R >>\nstartxref\n${table}\n%%EOF\n`
  return Buffer.from(out, 'latin1')
}

import type { AnswerTally } from '../../wire/types.gen'

/**
 * A tally as it stands on a frame that the class may see on the teacher's screen: what is right only once it is shown,
 * names of mistakes never. For classes' own screens the server leaves these out itself (core/poll).
 */
export function asClass(tally: AnswerTally, revealed: boolean): AnswerTally {
  const { chart } = tally
  const right = <T extends { right?: boolean; mistake?: string }>(one: T): T => ({
    ...one,
    right: revealed && one.right,
    mistake: undefined,
  })
  switch (chart?.kind) {
    case 'bars':
      return { ...tally, chart: { kind: 'bars', bars: { bars: chart.bars.bars.map(right) } } }
    case 'numbers':
      return revealed ? tally : { ...tally, chart: { kind: 'numbers', numbers: { ...chart.numbers, band: undefined } } }
    case 'ladder': {
      const rungs = revealed ? chart.ladder.rungs : chart.ladder.rungs.map((r) => ({ ...r, place: undefined }))
      return { ...tally, chart: { kind: 'ladder', ladder: { ...chart.ladder, rungs } } }
    }
    case 'texts': {
      const texts = chart.texts.texts.map((one) => ({
        ...one,
        verdict: revealed ? one.verdict : undefined,
        mistake: undefined,
      }))
      return { ...tally, chart: { kind: 'texts', texts: { texts } } }
    }
    case 'grid': {
      const rows = chart.grid.rows.map((row) => ({ ...row, cells: row.cells.map(right) }))
      return { ...tally, chart: { kind: 'grid', grid: { ...chart.grid, rows } } }
    }
    case 'points': {
      const areas = revealed ? chart.points.areas?.filter((a) => a.right) : []
      return { ...tally, chart: { kind: 'points', points: { ...chart.points, areas } } }
    }
    default:
      return tally
  }
}

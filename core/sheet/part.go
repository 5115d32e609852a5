package sheet

import (
	"cmp"
	"slices"

	"alpenglow/core/lesson"
)

// Cursor says how far a reader has a sheet: all changes up to Seq, and of the
// next the marks with ids up to After, if that is not empty.
type Cursor struct {
	Seq   int64  `json:"seq"`
	After string `json:"after,omitempty"`
}

// Part is what has changed on a sheet since a cursor, as far as it went into
// one portion: marks as they are now, and the ids of those that the reader may
// not see. Ask again from To while More is set. Where Anew is set, the reader
// begins anew: what they had is not there any more.
type Part struct {
	Anew bool             `json:"anew,omitempty"`
	To   Cursor           `json:"to"`
	More bool             `json:"more,omitempty"`
	Put  []lesson.Element `json:"put"`
	Gone []string         `json:"gone,omitempty"`
}

// Since gives what has changed since a cursor for a reader who sees those marks
// for which sees says so, up to about limit bytes, and at least one mark.
//
// It looks at the sheet as it is now, never at the log: what has been put away
// since is not in it.
func (s *Sheet) Since(from Cursor, limit int, sees func(lesson.Element) bool) Part {
	anew := from.After == "" && (from.Seq <= 0 || from.Seq < s.lost || from.Seq > s.Seq)
	if anew {
		from = Cursor{}
	}
	var changed []held
	for _, m := range s.marks {
		if m.seq > from.Seq || m.seq == from.Seq && from.After != "" && m.ID > from.After {
			changed = append(changed, m)
		}
	}
	slices.SortFunc(changed, func(a, b held) int { return cmp.Or(cmp.Compare(a.seq, b.seq), cmp.Compare(a.ID, b.ID)) })
	part := Part{Anew: anew, Put: []lesson.Element{}, To: Cursor{Seq: s.Seq}}
	size := 0
	for i, m := range changed {
		if sees(m.Element) {
			part.Put = append(part.Put, m.Element)
			size += Size(m.Element)
		} else if from.Seq > 0 || from.After != "" {
			part.Gone = append(part.Gone, m.ID)
			size += len(m.ID)
		}
		if size >= limit && i < len(changed)-1 {
			part.More, part.To = true, Cursor{Seq: m.seq, After: m.ID}
			return part
		}
	}
	return part
}

// Size is about how many bytes a mark takes on the wire.
func Size(e lesson.Element) int {
	return 250 + 15*pointsOf(e) + len(e.Words()) + 40*len(e.Agreed)
}

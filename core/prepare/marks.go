package prepare

import (
	"cmp"
	"slices"

	"alpenglow/core/lesson"
	"alpenglow/core/sheet"
)

// keptRemoved is how many removed marks of a frame can be brought back.
const keptRemoved = 500

// marks changes marks of a frame by the rules of sheets, on which the teacher
// may do everything.
func (d *Draft) marks(e Edit, now int64) (Changed, Step, error) {
	f, err := d.frame(e.Marks.Frame)
	if err != nil {
		return Changed{}, Step{}, err
	}
	on := sheet.New(f.ID)
	for _, m := range f.Prepared {
		m.Author = lesson.Staff
		on.Load(m, 0)
	}
	bare := f
	bare.Prepared = nil
	result, err := on.Draft().Decide(sheet.Terms{Frame: bare, Open: true, Preparing: true, Now: now},
		sheet.Actor{Staff: true},
		sheet.Op{ID: e.ID, Sheet: f.ID, Back: e.Back, Step: e.Marks.Step})
	if err != nil {
		return Changed{}, Step{}, err
	}
	on.Take(result.Change)
	f.Prepared = kept(on.Marks())
	d.Frames[f.ID] = f
	back := Step{Kind: KindMarks, Marks: &MarksStep{Frame: f.ID, Step: result.Undo.Step}}
	return Changed{Marks: &ChangedMarks{Frame: f.ID, Put: result.Change.Put}}, back, nil
}

// kept forgets those removed marks that were removed long ago. The ids of the
// operations that removed them sort by time.
func kept(marks []lesson.Element) []lesson.Element {
	var removed []string
	for _, m := range marks {
		if !m.OnFrame() {
			removed = append(removed, m.Standing.In)
		}
	}
	if len(removed) <= keptRemoved {
		return marks
	}
	slices.SortFunc(removed, func(a, b string) int { return cmp.Compare(b, a) })
	oldest := removed[keptRemoved-1]
	return slices.DeleteFunc(marks, func(m lesson.Element) bool { return !m.OnFrame() && m.Standing.In < oldest })
}

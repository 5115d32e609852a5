package record

import (
	"cmp"
	"reflect"
	"slices"

	"alpenglow/core/lesson"
)

// Bounds of stills: how many a lesson has, and how long the name of one is.
const (
	MaxStills    = 60
	MaxStillName = 60
)

// Still is a moment of a lesson that was given a name, to come back to it. Nothing is copied: how
// work was then is found in what happened.
type Still struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	At   int64  `json:"at"` // milliseconds since 1970
}

// Between is what became of the marks of a sheet from one moment to another, by their ids.
type Between struct {
	New     []string `json:"new"`
	Gone    []string `json:"gone"`
	Changed []string `json:"changed"`
}

// Any reports whether anything changed.
func (b Between) Any() bool { return len(b.New)+len(b.Gone)+len(b.Changed) > 0 }

// Compare says what changed between two moments of a sheet. What only came to lie above or below
// others, or was agreed with, has not changed.
func Compare(before, after []lesson.Element) Between {
	b := Between{New: []string{}, Gone: []string{}, Changed: []string{}}
	was := map[string]lesson.Element{}
	for _, e := range before {
		if e.OnFrame() {
			was[e.ID] = e
		}
	}
	for _, e := range after {
		if !e.OnFrame() {
			continue
		}
		then, there := was[e.ID]
		switch {
		case !there:
			b.New = append(b.New, e.ID)
		case !reflect.DeepEqual(itself(then), itself(e)):
			b.Changed = append(b.Changed, e.ID)
		}
		delete(was, e.ID)
	}
	for id := range was {
		b.Gone = append(b.Gone, id)
	}
	slices.SortFunc(b.Gone, cmp.Compare)
	return b
}

// itself is a mark without what others do to it and where it lies among them.
func itself(e lesson.Element) lesson.Element {
	e.Z, e.By, e.Agreed, e.At = 0, "", nil, 0
	return e
}

package audience_test

import (
	"slices"
	"testing"

	"alpenglow/core/audience"
	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/poll"
	"alpenglow/core/sheet"
)

func standing(as lesson.Stand) *lesson.Standing {
	if as == lesson.Shown {
		return nil
	}
	return &lesson.Standing{Is: as, By: lesson.Staff, At: 1}
}

func note(id, author string, as lesson.Stand) lesson.Element {
	return lesson.Element{ID: id, Author: author, Standing: standing(as), W: 100, H: 100,
		Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: id, Tint: "moss"}}}
}

// The rows of docs/audiences.md about marks: for each standing of a mark of
// Noor's on each kind of sheet, who sees it on an open frame.
func TestTable(t *testing.T) {
	audiences := map[string]audience.Audience{"staff": audience.Staff(), "class": audience.Class(),
		"group 1": audience.Group(1),
		"Noor":    audience.Student("noor", 1), "Kenji of her group": audience.Student("kenji", 1),
		"Vera of another": audience.Student("vera", 2)}
	all := []string{"staff", "class", "group 1", "Noor", "Kenji of her group", "Vera of another"}
	group, own := []string{"staff", "group 1", "Noor", "Kenji of her group"}, []string{"staff", "Noor"}
	for _, row := range []struct {
		owner string
		as    lesson.Stand
		sees  []string
	}{
		{sheet.ClassOwner, lesson.Shown, all},
		{sheet.ClassOwner, lesson.Held, own},
		{sheet.ClassOwner, lesson.Hidden, []string{"staff"}},
		{sheet.ClassOwner, lesson.Removed, []string{"staff"}},
		{sheet.GroupOwner(1), lesson.Shown, group},
		{sheet.GroupOwner(1), lesson.Held, own},
		{sheet.GroupOwner(1), lesson.Hidden, []string{"staff"}},
		{"noor", lesson.Shown, own},
		{"noor", lesson.Held, own},
		{"noor", lesson.Hidden, []string{"staff"}},
		{"noor", lesson.Removed, []string{"staff"}},
	} {
		m := note("m", "noor", row.as)
		for name, a := range audiences {
			if got, want := a.Sheet(row.owner, true) && a.Mark(m), slices.Contains(row.sees, name); got != want {
				t.Errorf("%s on the sheet of %s, %s sees it: %v", row.as, row.owner, name, got)
			}
			if got, want := a.Sheet(row.owner, false), name == "staff"; got != want {
				t.Errorf("on a frame that is not open, %s sees the sheet of %s: %v", name, row.owner, got)
			}
		}
	}
}

// An answer is for who gave it and for the staff, wherever it lies and whoever looks on.
func TestAnswers(t *testing.T) {
	a := lesson.Element{ID: "asked", Author: "noor", Body: lesson.Body{Kind: lesson.KindAnswer,
		Answer: &lesson.Answer{Poll: "asked", Round: 1, Value: poll.Choose("a")}}}
	for name, c := range map[string]struct {
		who  audience.Audience
		want bool
	}{
		"the staff": {audience.Staff(), true}, "Noor": {audience.Student("noor", 1), true},
		"whose sheet it is": {audience.Sharing("noor"), true}, "Kenji": {audience.Student("kenji", 1), false},
		"the class": {audience.Class(), false}, "her group": {audience.Group(1), false},
		"the front screen": {audience.Front([]string{"noor"}), false},
		"who walks along":  {audience.Student("kenji", 1).Walking([]string{"noor"}), false},
	} {
		if got := c.who.Mark(a); got != c.want {
			t.Errorf("%s: %v", name, got)
		}
	}
}

func TestFrames(t *testing.T) {
	f := lesson.Frame{ID: "f", Title: "Tides", Notes: "for me", Objectives: []string{"o"},
		Paper: paper.Paper{Kind: paper.Plain}, Prepared: []lesson.Element{note("under", "", lesson.Shown),
			{ID: "lid", X: -5, Y: -5, W: 120, H: 120,
				Body: lesson.Body{Kind: lesson.KindCover, Cover: &lesson.Cover{Tint: "moss"}}}}}
	if seen, ok := audience.Staff().Frame(f, false, nil); !ok || seen.Notes == "" || len(seen.Prepared) != 2 {
		t.Errorf("the staff: %+v", seen)
	}
	if _, ok := audience.Class().Frame(f, false, nil); ok {
		t.Error("the class sees a frame that is not open")
	}
	if seen, ok := audience.Class().Frame(f, true, nil); !ok || seen.Notes != "" || seen.Objectives != nil ||
		len(seen.Prepared) != 1 || seen.Prepared[0].ID != "lid" {
		t.Errorf("the class: %+v", seen)
	}
	if seen, _ := audience.Class().Frame(f, true, []string{"lid"}); len(seen.Prepared) != 1 ||
		seen.Prepared[0].ID != "under" {
		t.Errorf("with the cover lifted: %+v", seen)
	}
}

// A line that comes into sight comes whole; one that leaves it is gone; and of what
// is not for a reader only the number is told.
func TestChanges(t *testing.T) {
	line := func(as lesson.Stand, points ...float64) lesson.Element {
		return lesson.Element{ID: "l", Author: "noor", Standing: standing(as),
			Body: lesson.Body{Kind: lesson.KindStroke, Stroke: &lesson.Stroke{Points: points, Ink: "night", Width: 4}}}
	}
	s := sheet.New(sheet.ClassOwner)
	noor, kenji := audience.Student("noor", 0), audience.Student("kenji", 0)
	for i, step := range []struct {
		change      sheet.Change
		noor, class int // points that they are told; -1 for nothing, -2 for gone
	}{
		{sheet.Change{Put: []lesson.Element{line(lesson.Shown, 0, 0, 1, 9, 9, 1)}}, 2, 2},
		{sheet.Change{Put: []lesson.Element{line(lesson.Shown)}}, 0, 0},
		{sheet.Change{Put: []lesson.Element{line(lesson.Held)}, Gone: []string{"l"}}, 0, -2},
		{sheet.Change{Put: []lesson.Element{line(lesson.Held)}}, 0, -1},
		{sheet.Change{Put: []lesson.Element{line(lesson.Hidden)}, Dropped: []string{"l"}}, -2, -1},
		{sheet.Change{Put: []lesson.Element{line(lesson.Hidden)}}, -1, -1},
		{sheet.Change{Put: []lesson.Element{line(lesson.Held)}, Come: []string{"l"}}, 2, -1},
		{sheet.Change{Put: []lesson.Element{line(lesson.Shown)}, Come: []string{"l"}}, 2, 2},
	} {
		c := step.change
		c.Seq, c.Op, c.By, c.At = int64(i+1), "op", lesson.Staff, 1
		s.Take(c)
		for name, reader := range map[string]struct {
			a    audience.Audience
			want int
		}{"Noor": {noor, step.noor}, "the class": {audience.Class(), step.class}, "Kenji": {kenji, step.class}} {
			seen := reader.a.Change(s, c)
			got := -1
			switch {
			case seen.Seq != c.Seq:
				t.Errorf("step %d: a hole for %s", i, name)
			case len(seen.Put) == 1:
				got = len(seen.Put[0].Stroke.Points) / 3
			case len(seen.Gone) == 1:
				got = -2
			case seen.Op != "" || seen.By != "":
				t.Errorf("step %d: %s learns who did what they may not see", i, name)
			}
			if got != reader.want {
				t.Errorf("step %d: %s is told %d, want %d", i, name, got, reader.want)
			}
			if seen.Come != nil || seen.Dropped != nil {
				t.Errorf("step %d: %s is told what is for the server alone", i, name)
			}
		}
	}
}

// Who wrote what waits learns of it before the others, and when it is refused.
func TestHeld(t *testing.T) {
	waits, refused := note("w", "noor", lesson.Held), note("r", "kenji", lesson.Hidden)
	other := note("o", "vera", lesson.Hidden)
	c := sheet.Change{Put: []lesson.Element{waits, refused, other}, Dropped: []string{"r"}, Gone: []string{"o"}}
	if got := audience.Held(c); !slices.Equal(got, []string{"noor", "kenji"}) {
		t.Errorf("%v", got)
	}
}

// How it was is shown as the class saw it then, without what has been put away since; what
// its author has removed since was there, and may be seen again.
func TestPast(t *testing.T) {
	removed := func(by string) *lesson.Standing { return &lesson.Standing{Is: lesson.Removed, By: by, At: 2} }
	for _, c := range []struct {
		name      string
		then, now *lesson.Standing
		front     bool
	}{
		{"unchanged", nil, nil, true}, {"hidden since", nil, standing(lesson.Hidden), false},
		{"held since", nil, standing(lesson.Held), false}, {"removed by its author since", nil, removed("noor"), true},
		{"removed by the teacher since", nil, removed(lesson.Staff), false},
		{"removed by another since", nil, removed("kenji"), false},
		{"held then, shown since", standing(lesson.Held), nil, false},
		{"hidden then, shown since", standing(lesson.Hidden), nil, false},
	} {
		then, now := note("m", "noor", lesson.Shown), note("m", "noor", lesson.Shown)
		then.Standing, now.Standing = c.then, c.now
		s := sheet.New("noor")
		s.Load(now, 1)
		if got := len(audience.Front([]string{"noor"}).Past([]lesson.Element{then}, s)) == 1; got != c.front {
			t.Errorf("%s: in front %v", c.name, got)
		}
		if got := len(audience.Staff().Past([]lesson.Element{then}, s)) == 1; !got {
			t.Errorf("%s: the staff does not see it", c.name)
		}
	}
}

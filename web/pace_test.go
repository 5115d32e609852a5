package web_test

import (
	"slices"
	"strings"
	"testing"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/live"
)

func pace(p session.Pace, through string) session.Command {
	return session.Command{Kind: session.KindPace, Pace: &session.SetPace{Pace: p, Through: through}}
}

func (l *line) move(frame string) live.Moved {
	l.t.Helper()
	var moved live.Moved
	if code := l.call(live.MethodMove, live.Move{Frame: frame}, &moved); code != "" {
		l.t.Fatal(code)
	}
	return moved
}

// At own pace each student is where they went, works there, finds it again
// after a restart, and is nowhere they may not be; the staff alone learns where.
func TestOwnPace(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	id, staff, noor, kenji := h.running()
	if at := noor.move("own").Stage.Frame.ID; at != "shared" {
		t.Errorf("where the teacher leads, Noor went to %q", at)
	}
	staff.command(pace(session.Own, "own"))
	if !noor.until(`"pace":"own"`) || noor.everHeard("Title of poll") {
		t.Error("own pace does not reach the students, or tells of frames that are not open")
	}
	moved := noor.move("own")
	if moved.Stage.Frame.ID != "own" || len(moved.Stage.Trail) != 2 {
		t.Fatalf("%+v", moved.Stage)
	}
	noor.mustDo(note(opened(moved.Sheets).own(), "on my way"))
	if at := noor.move("poll").Stage.Frame.ID; at != "own" {
		t.Errorf("Noor went to %q, which is not open", at)
	}
	kenji.mustDo(note(kenji.sheet("shared", sheet.ClassOwner), "still here"))
	staff.command(goTo("poll"))
	if !staff.until(`"at":"own"`) {
		t.Error("the staff does not learn where Noor is")
	}
	if kenji.everHeard(`"at":"own"`) || kenji.everHeard("on my way") {
		t.Error("Kenji learns where Noor is, or what she has there")
	}

	back := noor.connect(id, live.RoleStudent)
	if back.hello.Stage.Frame.ID != "own" || !slices.Equal(back.hello.Worked, []string{"own"}) {
		t.Errorf("back on %q, worked on %v", back.hello.Stage.Frame.ID, back.hello.Worked)
	}
	stored, err := h.store.Participants(t.Context(), id)
	if err != nil || len(stored) != 2 || stored[0].Name != "Noor" || stored[0].Frame == nil ||
		*stored[0].Frame != "own" || stored[1].Frame != nil {
		t.Errorf("%+v, %v", stored, err)
	}
	staff.command(pace(session.Led, ""))
	if !kenji.until("Title of poll") || !noor.until("Title of poll") {
		t.Error("leading again does not bring everybody together")
	}
	if stored, err = h.store.Participants(t.Context(), id); err != nil || stored[0].Frame != nil {
		t.Errorf("%+v, %v", stored, err)
	}
	if got := noor.call(live.MethodCommand, pace(session.Own, ""), nil); got != refusal.NotYours {
		t.Errorf("a student sets the pace: %q", got)
	}
}

// A group shares a sheet that no other student hears of or writes on; who is
// moved to another group leaves it; who comes late has a group.
func TestGroupsOverTheWire(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher := h.teacher("ines@ternharbour.example")
	id, code := teacher.started()
	staff := teacher.connect(id, live.RoleStaff)
	students := map[string]*line{}
	for _, name := range []string{"Noor", "Kenji", "Amara", "Tomás"} {
		seat, _ := h.student(code, name)
		students[name] = seat.connect(id, live.RoleStudent)
	}
	staff.command(session.Command{Kind: session.KindGroups, Groups: &session.SetGroups{Size: 2}})
	staff.command(session.Command{Kind: session.KindUse,
		Use: &session.Use{Frame: "shared", Arrangement: lesson.Groups,
			Permission: lesson.Add}})
	noor := students["Noor"]
	if !noor.until(`"number":`) {
		t.Fatal("Noor does not learn of her group")
	}
	mine := noor.move("").Stage.Group
	var mate, other *line
	for _, l := range students {
		switch is := l.hello.Me.ID; {
		case l == noor:
		case slices.Contains(mine.Members, is):
			mate = l
		default:
			other = l
		}
	}
	ours := noor.sheet("shared", sheet.GroupOwner(mine.Number))
	noor.mustDo(note(ours, "between us"))
	if mate == nil || !mate.until("between us") || !staff.until("between us") {
		t.Fatal("the group and the staff do not hear of the note")
	}
	if got := other.do(note(ours, "from outside")); got.Problem == nil || got.Problem.Code != refusal.NoSuchSheet {
		t.Errorf("another group's sheet was written on: %+v", got)
	}
	if got := other.call(live.MethodSince, live.Since{Sheet: ours}, nil); got != refusal.NoSuchSheet {
		t.Errorf("another group's sheet was read: %q", got)
	}
	staff.command(session.Command{Kind: session.KindAssign,
		Assign: &session.Assign{Student: mate.hello.Me.ID, Group: 3 - mine.Number}})
	if got := mate.do(note(ours, "no longer ours")); got.Problem == nil || got.Problem.Code != refusal.NoSuchSheet {
		t.Errorf("who left a group writes on its sheet: %+v", got)
	}
	if theirs := mate.move(""); theirs.Stage.Group.Number != 3-mine.Number ||
		theirs.Sheets[0].Owner != sheet.GroupOwner(3-mine.Number) || len(theirs.Stage.Group.Members) != 3 {
		t.Errorf("%+v", theirs)
	}
	noor.mustDo(note(ours, "alone now"))
	time.Sleep(100 * time.Millisecond)
	if other.everHeard("between us") || other.everHeard("alone now") || mate.everHeard("alone now") {
		t.Error("a group's work was told to another")
	}
	lateSeat, _ := h.student(code, "Ayla")
	late := lateSeat.connect(id, live.RoleStudent)
	if g := late.hello.Stage.Group; g == nil || g.Number != mine.Number {
		t.Fatalf("who comes late joins the smallest group, %d: %+v", mine.Number, g)
	}
	if text := late.hello.Sheets[0].Put; len(text) != 2 ||
		!strings.Contains(text[0].Note.Text+text[1].Note.Text, "between us") {
		t.Errorf("%+v", text)
	}
	// Who has a seat but no group when the lesson ends, learns that it has ended.
	seat, _ := h.student(staff.code(id), "Bilal")
	staff.command(session.Command{Kind: session.KindEnd, End: &session.End{}})
	if bilal := seat.connect(id, live.RoleStudent); !bilal.hello.Stage.Ended || len(bilal.hello.Sheets) != 0 {
		t.Errorf("%+v", bilal.hello)
	}
	if g := noor.move("").Stage.Group; !slices.Contains(g.Members, late.hello.Me.ID) {
		t.Error("the group does not learn who came")
	}
}

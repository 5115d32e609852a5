package live

import (
	"encoding/json"
	"slices"
	"testing"

	"alpenglow/core/insight"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/core/voices"
)

// A teacher learns what is known of each student as it happens, the same as another
// server reads it from the database; and what waits for a yes.
func TestKnowing(t *testing.T) {
	t.Parallel()
	f := newBattle(t)
	staff, noor, kenji := f.connect("staff", RoleStaff), f.connect("Noor", RoleStudent), f.connect("Kenji", RoleStudent)
	var hello StaffHello
	read := func() StaffHello {
		t.Helper()
		hello = StaffHello{}
		if err := json.Unmarshal(staff.call(MethodHello, Hello{}), &hello); err != nil {
			t.Fatal(err)
		}
		return hello
	}
	read()
	for _, w := range []*wire{noor, kenji} {
		w.call(MethodHello, Hello{})
	}
	r, err := f.hub.session(ctx, f.id)
	if err != nil {
		t.Fatal(err)
	}
	row := func(i int) insight.Row {
		t.Helper()
		rows, _ := r.next(now())
		told := read().Next.Rows
		if !slices.EqualFunc(rows, told, insight.Row.Same) {
			t.Errorf("kept up\n%+v\nread\n%+v", rows, told)
		}
		return rows[slices.IndexFunc(rows, func(r insight.Row) bool { return r.Student == f.ids[i] })]
	}
	class := staff.open(f.board.Frames[0].ID)[0].Sheet
	first := adding(class, "first")
	noor.ops(first)
	if got := row(0); got.State != insight.AtWork || got.Why != insight.WhyUnseen {
		t.Errorf("Noor has begun: %+v", got)
	}
	if got := row(1); got.State != insight.NotBegun || got.Why != insight.WhyBehind || got.N != 1 {
		t.Errorf("Kenji has not, and half of those here have: %+v", got)
	}
	if got := row(2); got.State != insight.Gone {
		t.Errorf("Vera is not here: %+v", got)
	}
	say := func(on *wire, w voices.Word) { on.call(MethodSay, w) }
	say(staff, voices.Word{Kind: voices.KindLook, Look: &voices.Look{Student: f.ids[1]}})
	if got := row(1); !got.Seen {
		t.Errorf("the teacher has looked at Kenji's: %+v", got)
	}
	say(kenji, voices.Word{Kind: voices.KindHelp, Help: &voices.Help{Yes: true}})
	if rows, _ := r.next(now()); rows[0].Student != f.ids[1] || rows[0].Why != insight.WhyHelp {
		t.Errorf("who asks for help comes first: %+v", rows)
	}
	kenji.call(MethodSight, Sight{Away: true})
	say(kenji, voices.Word{Kind: voices.KindHelp, Help: &voices.Help{}})
	if got := row(1); got.State != insight.Away {
		t.Errorf("Kenji's device shows something else: %+v", got)
	}

	// What students may not say.
	for _, w := range []voices.Word{{Kind: voices.KindLook, Look: &voices.Look{Student: f.ids[0]}},
		{Kind: voices.KindPick, Pick: &voices.Pick{}},
		{Kind: voices.KindTell, Tell: &voices.Tell{Student: f.ids[1], Text: "x"}}} {
		var answer Failure
		if err := json.Unmarshal(noor.call(MethodSay, w), &answer); err != nil || answer.Problem == nil ||
			answer.Problem.Code != refusal.NotYours {
			t.Errorf("a student says %s: %+v", w.Kind, answer.Problem)
		}
	}

	// What waits, kept up and read.
	staff.call(MethodCommand, session.Command{Kind: session.KindHold, Hold: &session.Hold{On: true}})
	second := adding(class, "second")
	noor.ops(second)
	if q := r.queue(); q.Count != 1 || q.First[0].Mark.ID != second.Add.Mark || q.First[0].Sheet != class {
		t.Errorf("waiting: %+v", q)
	}
	if q := read().Queue; q.Count != 1 {
		t.Errorf("read: %+v", q)
	}
	staff.ops(step(class, sheet.Step{Kind: sheet.KindShow, Show: &sheet.Show{Mark: second.Add.Mark}}))
	if q := r.queue(); q.Count != 0 || q.First == nil {
		t.Errorf("let through: %+v", q)
	}
	// Drawn: each of those here once before anybody twice; a word to Noor reaches Noor alone.
	for range 4 {
		say(staff, voices.Word{Kind: voices.KindPick, Pick: &voices.Pick{}})
	}
	var drawn []string
	for _, p := range read().Said.All.Picked {
		drawn = append(drawn, p.Student)
	}
	if len(drawn) != 4 || drawn[0] == drawn[1] || drawn[2] == drawn[3] || slices.Contains(drawn, f.ids[2]) {
		t.Errorf("drawn: %v", drawn)
	}
	say(staff, voices.Word{Kind: voices.KindTell, Tell: &voices.Tell{Student: f.ids[0], Text: secret}})
	told := func(w *wire) []voices.Told {
		var hello StudentHello
		if err := json.Unmarshal(w.call(MethodHello, Hello{}), &hello); err != nil {
			t.Fatal(err)
		}
		return hello.Said.Own.Told
	}
	if got := told(kenji); len(got) > 0 || kenji.leaked != "" {
		t.Errorf("Kenji is told what is for Noor: %v %s", got, kenji.leaked)
	}
	got := told(noor)
	if len(got) != 1 || got[0].Text != secret {
		t.Fatalf("Noor is told %v", got)
	}
	say(noor, voices.Word{Kind: voices.KindHeard, Heard: &voices.Heard{Until: got[0].At}})
	if got := told(noor); len(got) != 0 {
		t.Errorf("read, and told again: %v", got)
	}
}

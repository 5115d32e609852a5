package sheet_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"alpenglow/core/audience"
	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"

	"github.com/google/uuid"
)

var (
	staff = sheet.Actor{Staff: true}
	noor  = sheet.Actor{ID: "noor"}
	kenji = sheet.Actor{ID: "kenji"}
	amara = sheet.Actor{ID: "amara"}
)

func v7() string { return uuid.Must(uuid.NewV7()).String() }

func pollMark() lesson.Element {
	return lesson.Element{ID: "asked", X: 100, Y: 100, W: 400, H: 300,
		Body: lesson.Body{Kind: lesson.KindPoll, Poll: &poll.Question{
			Text: "?", Body: poll.Offer(poll.Option{ID: "a", Text: "A", Right: true}, poll.Option{ID: "b", Text: "B"}),
		}}}
}

// pieces are a card to move, a pin of which there is an endless supply, and a
// card under a cover.
func pieces() []lesson.Element {
	card := func(id string, x float64) lesson.Element {
		return lesson.Element{ID: id, X: x, Y: 950, W: 60, H: 40, Layer: lesson.Piece,
			Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: id, Tint: "moss"}}}
	}
	pin := lesson.Element{ID: "pin", X: 1550, Y: 960, W: 30, H: 30, Layer: lesson.Supply, Tray: true,
		Body: lesson.Body{Kind: lesson.KindStamp, Stamp: &lesson.Stamp{Sign: "pin"}}}
	lid := lesson.Element{ID: "lid", X: 1360, Y: 900, W: 100, H: 100,
		Body: lesson.Body{Kind: lesson.KindCover, Cover: &lesson.Cover{Tint: "lilac"}}}
	return []lesson.Element{card("card", 1480), card("secret", 1380), pin, lid}
}

// pinned puts a copy of the pin on the sheet.
func pinned(mark string) sheet.Op {
	return add(sheet.Add{Mark: mark, X: 200, Y: 300,
		Body: lesson.Body{Kind: lesson.KindPlaced, Placed: &lesson.Placed{Piece: "pin"}}})
}

func rules(arrangement lesson.Arrangement, permission lesson.Permission) sheet.Terms {
	return sheet.Terms{
		Frame: lesson.Frame{ID: "f", Arrangement: arrangement, Permission: permission,
			Prepared: append([]lesson.Element{pollMark()}, pieces()...)},
		Open: true, Now: 1000, Polls: map[string]poll.State{"asked": {Phase: poll.Open, Round: 1}},
	}
}

func add(a sheet.Add) sheet.Op {
	return sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindAdd, Add: &a}}
}

func many(steps ...sheet.Op) sheet.Op {
	all := &sheet.Many{}
	for _, s := range steps {
		all.Steps = append(all.Steps, s.Step)
	}
	return sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindMany, Many: all}}
}

func erase(part bool, path ...float64) sheet.Op {
	return sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindErase,
		Erase: &sheet.Erase{Path: path, Radius: 10, Part: part}}}
}

func agree(mark string, yes bool) sheet.Op {
	return sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindAgree, Agree: &sheet.Agree{Mark: mark, Yes: yes}}}
}

func clear(author string) sheet.Op {
	return sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindClear, Clear: &sheet.Clear{Author: author}}}
}

func connector(mark string, from, to lesson.Anchor) sheet.Op {
	return add(sheet.Add{Mark: mark, Body: lesson.Body{Kind: lesson.KindConnector,
		Connector: &lesson.Connector{From: from, To: to, Ink: "night", Width: 4, Heads: lesson.HeadsTo}}})
}

func set(mark string, change func(*sheet.Set)) sheet.Op {
	s := &sheet.Set{Mark: mark}
	change(s)
	return sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindSet, Set: s}}
}

func addNote(mark, text string) sheet.Op {
	return add(sheet.Add{Mark: mark, X: 10, Y: 20, W: 200, H: 120,
		Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: text, Tint: "apricot"}}})
}

func addStroke(mark string, points ...float64) sheet.Op {
	return add(sheet.Add{Mark: mark, X: 10, Y: 20,
		Body: lesson.Body{Kind: lesson.KindStroke, Stroke: &lesson.Stroke{Points: points, Ink: "night", Width: 4}}})
}

func target(kind sheet.Kind, mark string) sheet.Op {
	op := sheet.Op{ID: v7(), Step: sheet.Step{Kind: kind}}
	switch kind {
	case sheet.KindRemove:
		op.Remove = &sheet.Remove{Mark: mark}
	case sheet.KindRestore:
		op.Restore = &sheet.Restore{Mark: mark}
	case sheet.KindHide:
		op.Hide = &sheet.Hide{Mark: mark}
	case sheet.KindShow:
		op.Show = &sheet.Show{Mark: mark}
	case sheet.KindHold:
		op.Hold = &sheet.Hold{Mark: mark}
	}
	return op
}

func setText(mark, text string) sheet.Op {
	return sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindSet,
		Set: &sheet.Set{Mark: mark, Properties: lesson.Properties{Text: &text}}}}
}

func moveTo(mark string, x, y float64) sheet.Op {
	return sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindSet,
		Set: &sheet.Set{Mark: mark, Properties: lesson.Properties{X: &x, Y: &y}}}}
}

func answer(choice string) sheet.Op { return answerIn(1, choice) }

func of(value *poll.Value) sheet.Op {
	op := answer("a")
	op.Answer.Value = value
	return op
}

// answerIn answers in a round; without a choice it takes the answer back.
func answerIn(round int, choice string) sheet.Op {
	set := &sheet.SetAnswer{Poll: "asked", Round: round}
	if value := poll.Choose(choice); choice != "" {
		set.Value = &value
	}
	return sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindAnswer, Answer: set}}
}

func sureOf(choice string, sure poll.Sureness) sheet.Op {
	op := answerIn(1, choice)
	op.Answer.Sure = sure
	return op
}

// What comes after a question was closed, or its round is over, is kept and marked as late,
// and can be changed until the lesson ends. What came in time is never changed by it.
func TestLateAnswers(t *testing.T) {
	for name, now := range map[string]poll.State{
		"closed":          {Phase: poll.Closed, Round: 1},
		"revealed":        {Phase: poll.Revealed, Round: 1},
		"its time over":   {Phase: poll.Open, Round: 1, ClosesAt: 900},
		"asked once more": {Phase: poll.Open, Round: 2},
	} {
		s, r := sheet.New("noor"), rules(lesson.Individual, lesson.Add)
		r.Polls = map[string]poll.State{"asked": now}
		for _, choice := range []string{"b", "a"} {
			if _, err := apply(s, r, noor, answerIn(1, choice)); err != nil {
				t.Errorf("%s: %v", name, err)
			}
			m, _ := s.Mark("asked")
			if m.Answer == nil || !m.Answer.Late || m.Answer.Value.Choice.Option != choice {
				t.Errorf("%s: %+v", name, m.Answer)
			}
		}
		in, before := sheet.New("noor"), rules(lesson.Individual, lesson.Add)
		if _, err := apply(in, before, noor, answerIn(1, "a")); err != nil {
			t.Fatal(err)
		}
		want := refusal.PollClosed
		if now.Round == 2 {
			want = refusal.RoundOver
		}
		for _, choice := range []string{"b", ""} {
			if _, err := apply(in, r, noor, answerIn(1, choice)); !errors.Is(err, refusal.New(want)) {
				t.Errorf("%s, changed: %v", name, err)
			}
		}
		if m, _ := in.Mark("asked"); m.Answer.Late || m.Answer.Value.Choice.Option != "a" {
			t.Errorf("%s: what came in time is %+v", name, m.Answer)
		}
		// Taken back in time: what comes late is late.
		in = sheet.New("noor")
		for _, choice := range []string{"a", ""} {
			if _, err := apply(in, before, noor, answerIn(1, choice)); err != nil {
				t.Fatal(err)
			}
		}
		if _, err := apply(in, r, noor, answerIn(1, "b")); err != nil {
			t.Errorf("%s, after it was taken back: %v", name, err)
		}
		if m, _ := in.Mark("asked"); !m.Answer.Late {
			t.Errorf("%s: after it was taken back it is %+v", name, m.Answer)
		}
	}
}

// A question that is asked again has answers of its own; those of the round
// before stay as they were.
func TestRounds(t *testing.T) {
	s, r := sheet.New("noor"), rules(lesson.Individual, lesson.Look)
	do := func(op sheet.Op) {
		t.Helper()
		if _, err := apply(s, r, noor, op); err != nil {
			t.Fatal(err)
		}
	}
	do(answer("a"))
	r.Polls = map[string]poll.State{"asked": {Phase: poll.Open, Round: 2}}
	do(answerIn(2, "b"))
	do(answerIn(2, ""))
	do(answerIn(2, "b"))
	for round, want := range map[int]string{1: "a", 2: "b"} {
		m, ok := s.Mark(poll.AnswerID("asked", round))
		if !ok || !m.OnFrame() || m.Answer.Round != round || m.Answer.Value.Choice.Option != want {
			t.Errorf("round %d: %+v", round, m.Answer)
		}
	}
	// Nothing that a device does reaches it by that mark's id.
	for _, op := range []sheet.Op{target(sheet.KindRemove, poll.AnswerID("asked", 2)),
		moveTo(poll.AnswerID("asked", 2), 1, 1), addNote(poll.AnswerID("asked", 3), "mine")} {
		if _, err := apply(s, r, noor, op); err == nil {
			t.Errorf("%s of an answer", op.Kind)
		}
	}
}

// What was done before the arrangement was changed, and comes only now, is kept
// on the sheet that it was done on.
func TestLateAfterNewArrangement(t *testing.T) {
	in := sheet.Actor{ID: "noor", Group: 1}
	for _, owner := range []string{"class", "group-1", "noor"} {
		for _, now := range []lesson.Arrangement{lesson.WholeClass, lesson.Groups, lesson.Individual} {
			s := sheet.New(owner)
			if _, err := apply(s, rules(now, lesson.Add), in, addNote(v7(), "done without network")); err != nil {
				t.Errorf("on the sheet of %s, now shared by %s: %v", owner, now, err)
			}
			if _, err := apply(s, rules(now, lesson.Look), in, addNote(v7(), "x")); !errors.Is(err,
				refusal.New(refusal.LookOnly)) {
				t.Errorf("on a frame to look at: %v", err)
			}
		}
	}
}

func TestSameOperationTwice(t *testing.T) {
	s, r := sheet.New("class"), rules(lesson.WholeClass, lesson.Add)
	op := addNote(v7(), "once")
	first, err := apply(s, r, noor, op)
	if err != nil {
		t.Fatal(err)
	}
	again, err := apply(s, r, noor, op)
	if err != nil || !again.Again || again.Change.Seq != first.Change.Seq || len(s.Marks()) != 1 || s.Seq != 1 {
		t.Errorf("second time: %+v, %v, sheet at %d with %d marks", again, err, s.Seq, len(s.Marks()))
	}
	if _, err := apply(s, r, kenji, op); !errors.Is(err, refusal.New(refusal.NotYours)) {
		t.Errorf("somebody else's operation id: %v", err)
	}
}

// A sheet takes so much, of one student on a shared one a share; what is removed
// makes room again, however often, also for taking the removal back.
func TestSheetFull(t *testing.T) {
	if testing.Short() {
		t.Skip("takes seconds")
	}
	for _, c := range []struct {
		owner string
		by    sheet.Actor
		most  int
		want  refusal.Code
	}{{"noor", noor, sheet.MaxMarks, refusal.SheetFull}, {"class", noor, sheet.MaxMarks / 4, refusal.ShareFull},
		{"class", staff, sheet.MaxMarks, refusal.SheetFull}} {
		s, r := sheet.New(c.owner), rules(lesson.WholeClass, lesson.Add)
		must := func(by sheet.Actor, op sheet.Op) sheet.Result {
			t.Helper()
			result, err := apply(s, r, by, op)
			if err != nil {
				t.Fatal(err)
			}
			return result
		}
		fill := func() {
			t.Helper()
			for range c.most {
				must(c.by, addStroke(v7(), 0, 0, .5))
			}
			if _, err := apply(s, r, c.by, addStroke(v7(), 0, 0, .5)); !errors.Is(err, refusal.New(c.want)) {
				t.Fatalf("mark %d of %s: %v", c.most+1, c.owner, err)
			}
		}
		fill()
		left := s.Since(sheet.Cursor{}, 1<<30, audience.Staff().Mark)
		for range 3 {
			cleared := must(staff, clear(""))
			must(staff, taken(cleared.Undo))
			must(staff, clear(""))
			fill()
		}
		// Adding and removing for ever fills nothing.
		must(staff, clear(""))
		for range 12_000 {
			m := v7()
			must(c.by, addStroke(m, 0, 0, .5))
			must(c.by, target(sheet.KindRemove, m))
		}
		if n := len(s.Marks()); n > 3*sheet.MaxMarks {
			t.Errorf("%d marks are kept in memory", n)
		}
		// Who left in the beginning has marks of which nothing is known any more.
		if part := s.Since(left.To, 1<<30, audience.Staff().Mark); !part.Anew || len(part.Put) != len(s.Marks()) {
			t.Errorf("filled up with %d of %d marks, anew: %v", len(part.Put), len(s.Marks()), part.Anew)
		}
		if part := s.Since(sheet.Cursor{Seq: s.Seq - 1}, 1<<30, audience.Staff().Mark); part.Anew ||
			len(part.Put) != 1 {
			t.Errorf("who missed one change gets %d marks, anew: %v", len(part.Put), part.Anew)
		}
		fill()
	}
}

// Whatever id a student's device knows, it cannot give it to something new:
// prepared marks of this and other frames, pieces, covers, and what was removed.
func TestIDsInUse(t *testing.T) {
	asked, card, elsewhere := v7(), v7(), v7()
	r := rules(lesson.Individual, lesson.Add)
	for i := range r.Frame.Prepared {
		switch r.Frame.Prepared[i].ID {
		case "asked":
			r.Frame.Prepared[i].ID = asked
		case "card":
			r.Frame.Prepared[i].ID = card
		}
	}
	r.Polls = map[string]poll.State{asked: {Phase: poll.Open, Round: 1}}
	r.Taken = map[string]bool{elsewhere: true}
	s := sheet.New("noor")
	for _, id := range []string{asked, card, elsewhere} {
		if _, err := apply(s, r, noor, addNote(id, "mine")); !errors.Is(err, refusal.New(refusal.MarkExists)) {
			t.Errorf("a note with an id of the board: %v", err)
		}
	}
	// A note that got a poll's id before this was refused.
	s.Load(lesson.Element{ID: asked, Author: "noor", Body: addNote(asked, "old").Add.Body}, 0)
	a := poll.Choose("a")
	answer := sheet.Op{ID: v7(), Step: sheet.Step{Kind: sheet.KindAnswer,
		Answer: &sheet.SetAnswer{Poll: asked, Round: 1, Value: &a}}}
	if _, err := apply(s, r, noor, answer); !errors.Is(err, refusal.New(refusal.MarkExists)) {
		t.Errorf("an answer over a note: %v", err)
	}
}

// A changed answer has the time of the change.
func TestAnswerTime(t *testing.T) {
	s, r := sheet.New("noor"), rules(lesson.Individual, lesson.Add)
	for i, choice := range []string{"a", "b", "", "a"} {
		r.Now = int64(1000 * (i + 1))
		if _, err := apply(s, r, noor, answer(choice)); err != nil {
			t.Fatal(err)
		}
	}
	if m, _ := s.Mark("asked"); m.At != 4000 || !m.OnFrame() {
		t.Errorf("%+v", m)
	}
}

// What an operation costs is bounded before it is done: each of these once took
// seconds, and everybody waited.
func TestCostIsBounded(t *testing.T) {
	band := func(s *sheet.Sheet, lines int) {
		for k := range lines {
			points := make([]float64, 0, 3*4000)
			for i := range 4000 {
				points = append(points, float64(i%1500), float64(i%7), .5)
			}
			stroke := lesson.Element{ID: fmt.Sprint("line", k), Author: "noor", X: 10, Y: 400, Z: int64(k),
				Body: lesson.Body{Kind: lesson.KindStroke,
					Stroke: &lesson.Stroke{Points: points, Ink: "night", Width: 4}}}
			stroke.Fit()
			s.Load(stroke, 0)
		}
	}
	zigzag := make([]float64, 0, 1000)
	for i := range 500 {
		zigzag = append(zigzag, float64(i%2*1500), 420+float64(i%9))
	}
	restores := many()
	for range 240 {
		restores.Many.Steps = append(restores.Many.Steps,
			sheet.Step{Kind: sheet.KindRestore, Restore: &sheet.Restore{In: v7()}})
	}
	wide := many()
	for range 499 {
		wide.Many.Steps = append(wide.Many.Steps, addNote(v7(), strings.Repeat("x", 60)).Step)
	}
	for name, op := range map[string]sheet.Op{"an eraser beside 100 long lines": erase(true, zigzag...),
		"many restores": restores, "many notes": wide} {
		s := sheet.New("noor")
		band(s, 100)
		const most = 450_000
		result, err := s.Draft().Decide(rules(lesson.Individual, lesson.Add), noor, op)
		if result.Work > most {
			t.Errorf("%s: %d units of work", name, result.Work)
		}
		if err == nil && result.Charge(1) < 20 {
			t.Errorf("%s: charged %d for %d units", name, result.Charge(1), result.Work)
		}
		t.Logf("%s: %d units, %v", name, result.Work, err)
	}
}

func TestBuildTogetherAndAmount(t *testing.T) {
	s, r := sheet.New("class"), rules(lesson.WholeClass, lesson.BuildTogether)
	n := v7()
	for _, st := range []struct {
		by sheet.Actor
		op sheet.Op
	}{{noor, addNote(n, "ours")}, {kenji, moveTo(n, 300, 300)}, {kenji, addNote(v7(), "also")}} {
		if _, err := apply(s, r, st.by, st.op); err != nil {
			t.Fatal(err)
		}
	}
	if s.Amount("noor") != 1 || s.Amount("kenji") != 1 || s.Marks()[0].X != 300 {
		t.Errorf("amounts %d and %d, note at %v", s.Amount("noor"), s.Amount("kenji"), s.Marks()[0].X)
	}
	for _, step := range []struct {
		op   sheet.Op
		want int
	}{{target(sheet.KindRemove, n), 0}, {target(sheet.KindRestore, n), 1}, {target(sheet.KindHide, n), 1}} {
		if _, err := apply(s, r, staff, step.op); err != nil || s.Amount("noor") != step.want {
			t.Errorf("after %s: %d, want %d, %v", step.op.Kind, s.Amount("noor"), step.want, err)
		}
	}
}

func TestReadOp(t *testing.T) {
	id, on, mark := v7(), v7(), v7()
	good := fmt.Sprintf(
		`{"id":%q,"sheet":%q,"kind":"add","add":{"mark":%q,"x":1,"y":2,"w":200,"h":100,"kind":"note","note":{"text":"hi","tint":"moss"}}}`,
		id,
		on,
		mark,
	)
	if op, err := sheet.ReadOp([]byte(good)); err != nil || op.Add.Note.Text != "hi" {
		t.Fatalf("a good operation: %+v, %v", op, err)
	}
	cases := map[string]struct {
		text string
		want refusal.Code
	}{
		"no JSON":           {`{"id":`, refusal.Malformed},
		"a list":            {`[]`, refusal.Malformed},
		"unknown kind":      {`{"id":"x","kind":"explode"}`, refusal.UnknownOp},
		"forged author":     {strings.Replace(good, `"x":1`, `"author":"kenji","x":1`, 1), refusal.Malformed},
		"kind without it":   {fmt.Sprintf(`{"id":%q,"sheet":"s","kind":"hide"}`, id), refusal.Malformed},
		"two bodies":        {strings.Replace(good, `"sheet"`, `"hide":{"mark":"m"},"sheet"`, 1), refusal.Malformed},
		"id not version 7":  {strings.Replace(good, id, uuid.NewString(), 1), refusal.BadID},
		"id in capitals":    {strings.Replace(good, id, strings.ToUpper(id), 1), refusal.BadID},
		"sheet in capitals": {strings.Replace(good, on, strings.ToUpper(on), 1), refusal.BadID},
		"mark id no UUID":   {strings.Replace(good, mark, "1", 1), refusal.BadID},
		"NaN":               {strings.Replace(good, `"x":1`, `"x":NaN`, 1), refusal.Malformed},
	}
	for name, c := range cases {
		if _, err := sheet.ReadOp([]byte(c.text)); !errors.Is(err, refusal.New(c.want)) {
			t.Errorf("%s: got %v, want %s", name, err, c.want)
		}
	}
}

// Whatever bytes arrive, they are read or refused, and what was read can be
// applied without a panic.
func FuzzReadOp(f *testing.F) {
	for _, op := range []sheet.Op{addNote(v7(), "n"), addStroke(v7(), 0, 0, 1), moveTo(v7(), 1, 1),
		target(sheet.KindShow, "m"), answer("a"),
		erase(true, 1, 2, 3, 4), agree("m", true), clear("noor"),
		many(addNote(v7(), "n"), target(sheet.KindRemove, "m")),
		connector(v7(), lesson.Anchor{}, lesson.Anchor{X: 9})} {
		op.Sheet = v7()
		text, _ := json.Marshal(op)
		f.Add(text)
	}
	f.Fuzz(func(t *testing.T, text []byte) {
		op, err := sheet.ReadOp(text)
		if err != nil {
			if refusal.Of(err) == nil {
				t.Fatalf("an error that is no refusal: %v", err)
			}
			return
		}
		s := sheet.New("noor")
		op.Sheet = ""
		if _, err := apply(s, rules(lesson.Individual, lesson.Add), noor, op); err == nil && s.Seq != 1 {
			t.Fatal("taken without a number")
		}
	})
}

func BenchmarkApply(b *testing.B) {
	r := rules(lesson.WholeClass, lesson.Add)
	s := sheet.New("class")
	ids := make([]string, sheet.MaxMarks)
	for i := range ids {
		ids[i] = v7()
		if _, err := apply(s, r, staff, addNote(ids[i], "tide")); err != nil {
			b.Fatal(err)
		}
	}
	for b.Loop() {
		op := moveTo(ids[rand.IntN(len(ids))], float64(rand.IntN(1000)), 20)
		if _, err := apply(s, r, staff, op); err != nil {
			b.Fatal(err)
		}
	}
}

// apply decides an operation and takes what it changes, as a server does.
func apply(s *sheet.Sheet, t sheet.Terms, a sheet.Actor, op sheet.Op) (sheet.Result, error) {
	result, err := s.Draft().Decide(t, a, op)
	if err == nil && !result.Again {
		s.Take(result.Change)
	}
	return result, err
}

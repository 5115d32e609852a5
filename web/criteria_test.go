package web_test

import (
	"net/http"
	"strings"
	"sync"
	"testing"

	"alpenglow/core/assess"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/web"
)

// spoken is a recording of an eighth of a second: RIFF, format 1, 8,000 samples of 16 bits a second.
var spoken = "RIFF\xf4\x07\x00\x00WAVEfmt \x10\x00\x00\x00\x01\x00\x01\x00\x40\x1f\x00\x00\x80\x3e\x00\x00\x02\x00\x10" +
	"\x00data\xd0\x07\x00\x00" + strings.Repeat(
	"ab",
	1000,
)

// A grid is set while the lesson runs and after it; what was judged by it goes back with ink and a recording, which
// only those hear whom it is about, and which is gone once another takes its place.
func TestCriteria(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines, emil := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	run := ines.teaches(ines.class("8 Rowan", "Noor\nKenji").ID, true)
	noor, _ := h.student(ines.code(run), "Noor")
	kenji, _ := h.student(ines.code(run), "Kenji")
	at := "/api/sessions/" + run
	frame := func() lesson.Frame {
		var kept web.RecordReply
		ines.get(at+"/record", &kept)
		return kept.Record.Board.Frames[0]
	}
	first := frame().ID
	grid := web.SetCriteria{Frame: first, Criteria: []lesson.Criterion{{ID: "why", Name: "Says why",
		Words: map[string]string{"Secure": "Gives a reason."}}}}
	twice := web.SetCriteria{Criteria: append(grid.Criteria, grid.Criteria...)}
	set := func(v *visitor, ask web.SetCriteria, want refusal.Code) {
		t.Helper()
		if got := v.post(at+"/criteria", ask, nil); got != want {
			t.Errorf("%q, want %q", got, want)
		}
	}
	set(emil, grid, refusal.NotFound)
	set(noor, grid, refusal.SignInNeeded)
	set(ines, twice, refusal.BoardIncorrect)
	set(ines, web.SetCriteria{Frame: "another", Criteria: grid.Criteria}, refusal.NoSuchFrame)
	set(ines, grid, "")
	if got := frame().Criteria; len(got) != 1 || got[0].Words["Secure"] != "Gives a reason." {
		t.Fatalf("while it runs: %+v", got)
	}
	if got := ines.post(at+"/end", struct{}{}, nil); got != "" {
		t.Fatal(got)
	}
	grid.Criteria = append(grid.Criteria, lesson.Criterion{ID: "words", Name: "Uses the words"})
	set(ines, grid, "")
	if got := frame().Criteria; len(got) != 2 {
		t.Fatalf("afterwards: %+v", got)
	}

	var recorded, again web.Recorded
	if got := noor.file(at+"/voices", []byte(spoken), nil); got != refusal.SignInNeeded {
		t.Errorf("a student records: %q", got)
	}
	for _, into := range []*web.Recorded{&recorded, &again} {
		if got := ines.file(at+"/voices", []byte(spoken), into); got != "" || into.Seconds != 0.125 {
			t.Fatalf("%q %+v", got, into)
		}
	}
	var kept web.RecordReply
	ines.get(at+"/record", &kept)
	piece := assess.Piece{Frame: first}
	for _, s := range kept.Record.Students {
		if s.Name == "Noor" {
			piece.Student = s.ID
		}
	}
	say := func(s assess.Said, want refusal.Code) {
		t.Helper()
		if got := ines.post(at+"/judgements", s, nil); got != want {
			t.Errorf("%+v: %q, want %q", s, got, want)
		}
	}
	by := func(criterion string, level int) assess.Said {
		p := piece
		p.Criterion = criterion
		return assess.Said{Piece: p, Level: &level}
	}
	ink := []lesson.Element{{ID: "a", X: 5, Y: 5, Body: lesson.Body{Kind: lesson.KindStroke,
		Stroke: &lesson.Stroke{Points: []float64{0, 0, 0.5, 9, 9, 0.5}, Ink: "ember", Width: 4}}}}
	say(by("why", 2), "")
	say(by("words", 1), "")
	say(by("gone", 1), refusal.NoSuchCriterion)
	say(assess.Said{Piece: piece, Ink: &ink, Voice: &recorded.Sound, Comment: "Look here."}, "")
	hears := func(who string, v *visitor, sound string, want bool) {
		t.Helper()
		if status, _, data := v.send(http.MethodGet, "/api/pictures/"+sound, "", h.url); (status == http.StatusOK) != want ||
			want && string(data) != spoken {
			t.Errorf("%s: %d, %d bytes", who, status, len(data))
		}
	}
	hears("her teacher", ines, recorded.Sound, true)
	hears("another teacher", emil, recorded.Sound, false)
	hears("Noor, before it is given", noor, recorded.Sound, false)
	ines.post(at+"/given", web.GiveBack{Students: []string{piece.Student}}, nil)
	hears("Noor", noor, recorded.Sound, true)
	hears("Noor, another's", noor, again.Sound, false)
	hears("Kenji", kenji, recorded.Sound, false)
	hears("nobody", h.visitor(), recorded.Sound, false)
	var back assess.Back
	if got := noor.get(at+"/given", &back); got != "" || len(back.Frames) != 1 || len(back.Frames[0].Judged.Grid) != 2 ||
		back.Frames[0].Judged.Grid[0].Describes() != "Gives a reason." ||
		len(back.Frames[0].Judged.Ink) != 1 ||
		back.Frames[0].Judged.Voice != recorded.Sound {
		t.Fatalf("%q %+v", got, back)
	}
	if back.Frames[0].Frame.Criteria != nil {
		t.Error("the grid of others goes to students")
	}
	// What was judged by a criterion stays when it goes; a recording goes when another takes its place, and one of
	// another lesson is none.
	set(ines, web.SetCriteria{Frame: first, Criteria: []lesson.Criterion{}}, "")
	var seen web.Judgements
	if ines.get(at+"/judgements", &seen); len(seen.Judged) != 3 {
		t.Errorf("%+v", seen.Judged)
	}
	say(by("why", 0), refusal.NoSuchCriterion)
	say(assess.Said{Piece: assess.Piece{Student: piece.Student, Frame: first, Criterion: "why"}}, "")
	say(assess.Said{Piece: piece, Voice: &again.Sound}, "")
	hears("the first recording", ines, recorded.Sound, false)
	hears("the other one", noor, again.Sound, true)
	say(assess.Said{Piece: piece, Voice: &recorded.Sound}, "")
	var all web.Judgements
	if ines.get(at+"/judgements", &all); len(all.Judged) != 2 {
		t.Errorf("%+v", all.Judged)
	}
	for _, j := range all.Judged {
		if j.Voice != "" {
			t.Errorf("a recording that is gone: %+v", j)
		}
	}
	hears("the other one, taken away", ines, again.Sound, false)
}

// Grids are set and the lesson is ended and taken up at the same time: one grid stays, whole.
func TestCriteriaAtOnce(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines := h.teacher("ines@ternharbour.example")
	run := ines.teaches(ines.class("8 Rowan", "Noor").ID, true)
	at := "/api/sessions/" + run
	var all sync.WaitGroup
	for n := range 8 {
		all.Go(func() {
			name := string(rune('a' + n))
			ask := web.SetCriteria{
				Criteria: []lesson.Criterion{{ID: name + "1", Name: name}, {ID: name + "2", Name: name}},
			}
			if got := ines.post(at+"/criteria", ask, nil); got != "" && got != refusal.Ended {
				t.Errorf("%q", got)
			}
		})
	}
	all.Go(func() { ines.post(at+"/end", struct{}{}, nil) })
	all.Go(func() { ines.post(at+"/resume", struct{}{}, nil) })
	all.Wait()
	var kept web.RecordReply
	ines.get(at+"/record", &kept)
	if c := kept.Record.Board.Criteria; len(c) != 2 || c[0].Name != c[1].Name {
		t.Errorf("%+v", c)
	}
}

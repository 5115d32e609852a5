package web_test

import (
	"net/http"
	"strings"
	"sync"
	"testing"

	"alpenglow/core/assess"
	"alpenglow/core/refusal"
	"alpenglow/web"
)

// Two teachers judge one lesson, blind; only the word of whose lesson it is goes back to a student,
// by their seat and by their card, when it is given and until it is taken back.
func TestJudgements(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines, emil := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	class := ines.class("8 Rowan", "Noor\nKenji")
	var cards web.Cards
	ines.get("/api/classes/"+class.ID+"/cards", &cards)
	run := ines.teaches(class.ID, true)
	noor, seat := h.student(ines.code(run), "Noor")
	kenji, _ := h.student(ines.code(run), "Kenji")
	at := "/api/sessions/" + run
	var kept web.RecordReply
	ines.get(at+"/record", &kept)
	piece := assess.Piece{Frame: kept.Record.Board.Frames[0].ID}
	for _, s := range kept.Record.Students {
		if s.Name == "Noor" {
			piece.Student = s.ID
		}
	}
	if piece.Student == "" || seat.Name != "Noor" {
		t.Fatalf("%+v", kept.Record.Students)
	}
	high, low := 3, 0
	say := func(v *visitor, level *int, comment string) refusal.Code {
		return v.post(at+"/judgements", assess.Said{Piece: piece, Level: level, Comment: comment}, nil)
	}
	for who, want := range map[*visitor]refusal.Code{emil: refusal.NotFound, noor: refusal.SignInNeeded} {
		if got := say(who, &low, "SECRET of a second marker"); got != want {
			t.Errorf("%q, want %q", got, want)
		}
	}
	var book web.ClassBook
	ines.get("/api/classes", &book)
	together := web.TeachTogether{Teacher: book.Colleagues[0].ID, Teaches: true}
	if got := ines.post("/api/classes/"+class.ID+"/teachers", together, nil); got != "" {
		t.Fatal(got)
	}
	if got := say(emil, &low, "SECRET of a second marker"); got != "" {
		t.Fatal(got)
	}
	if got := say(ines, &high, "Well seen, Noor."); got != "" {
		t.Fatal(got)
	}
	six := 6
	if got := say(ines, &six, ""); got != refusal.NoSuchLevel {
		t.Errorf("a level that is none: %q", got)
	}
	other := piece
	other.Frame = "another"
	if got := ines.post(at+"/judgements", assess.Said{Piece: other, Level: &low}, nil); got != refusal.NoSuchFrame {
		t.Errorf("a frame that is none: %q", got)
	}
	if got := ines.post(at+"/judgements", assess.Said{Piece: assess.Piece{Student: run}, Level: &low},
		nil); got != refusal.NoSuchWork {
		t.Errorf("a student who is none: %q", got)
	}

	var seen web.Judgements
	if ines.get(at+"/judgements", &seen); len(seen.Judged) != 2 || seen.Agreements[0].Of != 1 ||
		seen.Phrases[0] != "Well seen, Noor." {
		t.Fatalf("%+v", seen)
	}
	if got := emil.post(at+"/blind", web.SetBlind{Blind: true}, nil); got != refusal.NotYours {
		t.Errorf("a second marker sets how it is judged: %q", got)
	}
	ines.post(at+"/blind", web.SetBlind{Blind: true}, nil)
	say(emil, nil, "a word without a level")
	if emil.get(at+"/judgements", &seen); len(seen.Judged) != 1 ||
		strings.Contains(seen.Judged[0].Comment, "Well seen") {
		t.Errorf("blind, and seen: %+v", seen.Judged)
	}

	if got := emil.get(at+"/letters", nil); got != refusal.NotYours {
		t.Errorf("a second marker prints what goes back: %q", got)
	}
	for path, want := range map[string]int{"": 1, "?student=" + piece.Student: 1, "?student=" + run: 0} {
		_, header, pdf := ines.send(http.MethodGet, at+"/letters.pdf"+path, "", "")
		if is := header.Get("Content-Type") == "application/pdf" && strings.HasPrefix(string(pdf), "%PDF-"); is != (want == 1) {
			t.Errorf("%s: %s", path, header.Get("Content-Type"))
		}
	}
	if got := emil.get(at+"/letters.pdf", nil); got != refusal.NotYours {
		t.Errorf("a second marker takes the letters: %q", got)
	}
	var letters web.Letters
	if ines.get(at+"/letters", &letters); len(letters.Letters) != 2 {
		t.Errorf("%d letters", len(letters.Letters))
	}

	// Nobody is given anything before it is given, and then only who it is about.
	card := web.ByCard{Card: cards.Cards[0].Code, Session: run}
	nothing := func(when string) {
		t.Helper()
		if got := noor.get(at+"/given", nil); got != refusal.NotGiven {
			t.Errorf("%s: %q", when, got)
		}
		if got := h.visitor().post("/api/given", card, nil); got != refusal.NotGiven {
			t.Errorf("%s, by card: %q", when, got)
		}
	}
	nothing("before")
	if got := emil.post(at+"/given", web.GiveBack{Students: []string{piece.Student}}, nil); got != refusal.NotYours {
		t.Errorf("a second marker gives back: %q", got)
	}
	if got := ines.post(at+"/given", web.GiveBack{Students: []string{piece.Student}},
		nil); got != refusal.LessonRunning {
		t.Errorf("while questions are open: %q", got)
	}
	if got := ines.post(at+"/end", struct{}{}, nil); got != "" {
		t.Fatal(got)
	}
	nothing("after the end")
	give := func(undo bool) {
		if got := ines.post(at+"/given", web.GiveBack{Students: []string{piece.Student, run}, Undo: undo},
			nil); got != "" {
			t.Fatal(got)
		}
	}
	give(false)
	var back assess.Back
	if got := noor.get(at+"/given", &back); got != "" || back.Name != "Noor" || len(back.Frames) != 1 ||
		back.Frames[0].Judged.Comment != "Well seen, Noor." || back.Frames[0].Judged.Level.At != 3 {
		t.Fatalf("%q %+v", got, back)
	}
	if got := kenji.get(at+"/given", nil); got != refusal.NotGiven {
		t.Errorf("Kenji: %q", got)
	}
	home := h.visitor()
	var list web.GivenLessons
	if got := home.post("/api/given", web.ByCard{Card: card.Card}, &list); got != "" || len(list.Lessons) != 1 ||
		list.Lessons[0].Session != run {
		t.Errorf("%q %+v", got, list)
	}
	if got := home.get(at+"/given", nil); got != refusal.NotGiven {
		t.Errorf("a list gives no seat: %q", got)
	}
	if got := home.post("/api/given", card, nil); got != "" {
		t.Fatal(got)
	}
	if got := home.get(at+"/given", &back); got != "" || back.Name != "Noor" {
		t.Errorf("at home: %q", got)
	}
	late := refusal.Code("")
	for range 25 {
		late = noor.get(at+"/given", nil)
	}
	if late != refusal.TooMany {
		t.Errorf("read again and again: %q", late)
	}
	give(true)
	nothing("after it was taken back")
	if got := home.get(at+"/given", nil); got != refusal.NotGiven {
		t.Errorf("at home, taken back: %q", got)
	}
	// Nothing is noted any more, by nothing.
	say(ines, nil, " ")
	if ines.get(at+"/judgements", &seen); len(seen.Judged) != 0 {
		t.Errorf("%+v", seen.Judged)
	}
}

// The same teacher on many devices at once: one judgement stays, whole.
func TestJudgingAtOnce(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines := h.teacher("ines@ternharbour.example")
	run := ines.teaches(ines.class("8 Rowan", "Noor").ID, true)
	h.student(ines.code(run), "Noor")
	at := "/api/sessions/" + run
	var kept web.RecordReply
	ines.get(at+"/record", &kept)
	piece := assess.Piece{Student: kept.Record.Students[0].ID}
	var all sync.WaitGroup
	for n := range 12 {
		all.Go(func() {
			level := n % 4
			said := assess.Said{Piece: piece, Level: &level, Comment: string(rune('a' + level))}
			if got := ines.post(at+"/judgements", said, nil); got != "" {
				t.Errorf("%q", got)
			}
		})
	}
	all.Wait()
	var seen web.Judgements
	ines.get(at+"/judgements", &seen)
	if len(seen.Judged) != 1 || seen.Judged[0].Comment != string(rune('a'+seen.Judged[0].Level.At)) {
		t.Errorf("%+v", seen.Judged)
	}
}

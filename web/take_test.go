package web_test

import (
	"encoding/json"
	"slices"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/prepare"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/live"
	"alpenglow/store"
	"alpenglow/web"
)

// A running lesson's board is changed as any board is, and what was changed goes into
// the board that it began with, one thing at a time, and into no other board.
func TestChangedInLesson(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	id, code := teacher.started()
	seat, _ := h.student(code, "Noor")
	noor := seat.connect(id, live.RoleStudent)
	n, err := h.store.Session(t.Context(), id)
	if err != nil {
		t.Fatal(err)
	}
	var first struct{ Stage session.Stage }
	noor.call("hello", struct{}{}, &first)
	began, err := h.store.BoardOf(t.Context(), id)
	if err != nil {
		t.Fatal(err)
	}
	frame := first.Stage.Frame.ID
	// By commands, as the lesson's own screen does, and by edits and new frames, as
	// preparing does.
	if _, err := h.hub.Command(t.Context(), id, "", session.Command{Kind: session.KindReword,
		Reword: &session.Reword{Frame: frame, Title: "Ebb", Prompt: "What goes out?"}}); err != nil {
		t.Fatal(err)
	}
	edit := func(v *visitor, board string, step prepare.Step) refusal.Code {
		text, err := json.Marshal(prepare.Edit{ID: store.NewID(), Step: step})
		if err != nil {
			t.Fatal(err)
		}
		var reply web.EditsReply
		if got := v.post("/api/boards/"+board+"/edits", web.Edits{Edits: []json.RawMessage{text}}, &reply); got != "" {
			return got
		}
		if p := reply.Results[0].Problem; p != nil {
			return p.Code
		}
		return ""
	}
	together, yes := lesson.BuildTogether, true
	use := prepare.Step{
		Kind:  prepare.KindFrame,
		Frame: &prepare.SetFrame{Frame: frame, Permission: &together, Replies: &yes},
	}
	drop := func(frame string) prepare.Step {
		return prepare.Step{Kind: prepare.KindDrop, Drop: &prepare.Frames{Frames: []string{frame}}}
	}
	var added web.EditsReply
	for name, c := range map[string]struct{ got, want refusal.Code }{
		"how it is used":                 {edit(teacher, id, use), ""},
		"the frame that the class is on": {edit(teacher, id, drop(frame)), refusal.FrameInUse},
		"by another teacher":             {edit(other, id, use), refusal.NotFound},
		"by nobody":                      {edit(h.visitor(), id, use), refusal.SignInNeeded},
		"a new frame": {teacher.post("/api/boards/"+id+"/frames", web.AddFrames{ID: store.NewID(), At: 1,
			From: web.FrameSource{Kind: "blank", Blank: &web.Blank{}}}, &added), ""},
	} {
		if c.got != c.want {
			t.Errorf("%s: %q, want %q", name, c.got, c.want)
		}
	}
	fresh := added.Changes[len(added.Changes)-1].Whole[0].ID
	var now struct{ Stage session.Stage }
	noor.call("hello", struct{}{}, &now)
	if f := now.Stage.Frame; f.Title != "Ebb" || !f.Replies || now.Stage.Of != first.Stage.Of+1 {
		t.Fatalf("the class sees %+v", now.Stage)
	}
	var boards web.Boards
	if got := teacher.get("/api/boards", &boards); got != "" || slices.ContainsFunc(boards.Boards,
		func(b web.BoardItem) bool { return b.ID == id }) {
		t.Errorf("%q: the lesson's board stands among the others: %+v", got, boards.Boards)
	}
	on := func() lesson.Board {
		t.Helper()
		kept, err := h.store.Board(t.Context(), n.TeacherID, began)
		if err != nil {
			t.Fatal(err)
		}
		return kept.Board()
	}
	var differ web.Differences
	if got := teacher.get("/api/sessions/"+id+"/differences", &differ); got != "" || differ.Board != began {
		t.Fatal(got)
	}
	want := []prepare.Difference{{What: prepare.WhatWords, Frame: frame, Title: "Ebb"},
		{What: prepare.WhatUse, Frame: frame, Title: "Ebb"}, {What: prepare.WhatNew, Frame: fresh}}
	if !slices.Equal(differ.Differences, want) {
		t.Fatalf("differ: %+v", differ.Differences)
	}
	if f := on().Frames[0]; f.Title == "Ebb" || f.Replies {
		t.Fatalf("before it is taken: %+v", f)
	}
	take := func(v *visitor, d prepare.Difference) refusal.Code {
		return v.post("/api/sessions/"+id+"/take", d, nil)
	}
	if got := take(teacher, want[0]); got != "" {
		t.Fatal(got)
	}
	if f := on().Frames[0]; f.Title != "Ebb" || f.Prompt != "What goes out?" || f.Replies {
		t.Errorf("the words were taken: %+v", f)
	}
	for _, d := range want[1:] {
		if got := take(teacher, d); got != "" {
			t.Fatal(got)
		}
	}
	if b := on(); !b.Frames[0].Replies || b.Frames[1].ID != fresh {
		t.Errorf("all was taken: %+v", b)
	}
	if teacher.get("/api/sessions/"+id+"/differences", &differ); len(differ.Differences) != 0 {
		t.Errorf("still differ: %+v", differ.Differences)
	}
	for name, c := range map[string]struct{ got, want refusal.Code }{
		"by another teacher": {take(other, want[0]), refusal.NotFound},
		"by nobody":          {take(h.visitor(), want[0]), refusal.SignInNeeded},
		"another frame": {take(teacher, prepare.Difference{What: "words", Frame: "elsewhere"}),
			refusal.NoSuchFrame},
		"something else": {take(teacher, prepare.Difference{What: "everything", Frame: frame}), refusal.Malformed},
		"deleting the lesson's board": {teacher.post("/api/boards/"+id+"/card", web.SetCard{Deleted: &yes}, nil),
			refusal.NotFound},
		"a link to it": {teacher.post("/api/boards/"+id+"/link", struct{}{}, nil), refusal.NotFound},
		"starting it once more": {teacher.post("/api/boards/"+id+"/sessions", web.StartSession{Pace: "led"}, nil),
			refusal.NotFound},
		"the lesson is over": {teacher.post("/api/sessions/"+id+"/end", struct{}{}, nil), ""},
	} {
		if c.got != c.want {
			t.Errorf("%s: %q, want %q", name, c.got, c.want)
		}
	}
	if got := edit(teacher, id, use); got != refusal.Ended {
		t.Errorf("after the end: %q", got)
	}
}

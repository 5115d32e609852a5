package web_test

import (
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/store"
	"alpenglow/web"
)

// What was changed in a lesson goes into its board, one thing at a time, and into no
// other board.
func TestTakeIntoBoard(t *testing.T) {
	h := newHouse(t)
	teacher, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	id, _ := teacher.started()
	n, err := h.store.Session(t.Context(), id)
	if err != nil {
		t.Fatal(err)
	}
	frame := n.Content.V.Frames[0].ID
	for _, c := range []session.Command{
		{Kind: session.KindReword, Reword: &session.Reword{Frame: frame, Wording: session.Wording{Title: "Ebb",
			Prompt: "What goes out?"}}},
		{Kind: session.KindUse, Use: &session.Use{Frame: frame, Setting: session.Setting{Arrangement: lesson.WholeClass,
			Permission: lesson.BuildTogether, Replies: true}}},
	} {
		if _, err := h.hub.Command(t.Context(), id, "", c); err != nil {
			t.Fatal(err)
		}
	}
	board, err := h.store.BoardOf(t.Context(), id)
	if err != nil {
		t.Fatal(err)
	}
	now := func() lesson.Frame {
		t.Helper()
		var f lesson.Frame
		if err := h.store.ChangeBoard(t.Context(), n.TeacherID, board, func(d *store.Draft) error {
			if err := d.Load(t.Context(), frame); err != nil {
				return err
			}
			f = d.Frames[frame]
			return nil
		}); err != nil {
			t.Fatal(err)
		}
		return f
	}
	take := func(v *visitor, what web.TakeKind, frame string) refusal.Code {
		return v.post("/api/sessions/"+id+"/take", web.Take{Frame: frame, What: what}, nil)
	}
	if f := now(); f.Title == "Ebb" || f.Replies {
		t.Fatalf("before it is taken: %+v", f)
	}
	if got := take(teacher, web.TakeWords, frame); got != "" {
		t.Fatal(got)
	}
	if f := now(); f.Title != "Ebb" || f.Prompt != "What goes out?" || f.Replies {
		t.Errorf("the words were taken: %+v", f)
	}
	if got := take(teacher, web.TakeUse, frame); got != "" {
		t.Fatal(got)
	}
	if f := now(); f.Permission != lesson.BuildTogether || !f.Replies {
		t.Errorf("the use was taken: %+v", f)
	}
	for name, c := range map[string]struct{ got, want refusal.Code }{
		"by another teacher": {take(other, web.TakeWords, frame), refusal.NotFound},
		"by nobody":          {take(h.visitor(), web.TakeWords, frame), refusal.SignInNeeded},
		"another frame":      {take(teacher, web.TakeWords, "elsewhere"), refusal.NoSuchFrame},
		"something else":     {take(teacher, "everything", frame), refusal.Malformed},
	} {
		if c.got != c.want {
			t.Errorf("%s: %q, want %q", name, c.got, c.want)
		}
	}
}

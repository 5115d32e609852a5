package web_test

import (
	"bytes"
	"encoding/json"
	"net/http"
	"strings"
	"testing"

	"alpenglow/core/lesson"
	"alpenglow/core/poll"
	"alpenglow/core/questions"
	"alpenglow/core/refusal"
	"alpenglow/web"
)

// Questions come in from each kind of file, with what could not be read at its line, as frames or as one in
// a row; and go out again as each, with what it does not hold.
func TestQuestionFiles(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	teacher, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	in := teacher.bring("tides.txt&language=de", `# Tides
choose: Which?
+ one
- two = took it for one
short: ?
is:
number: How far?
is: 1,5
near: 2 %
`)
	if in.Kind != "questions" || in.Title != "Tides" || len(in.Pages) != 3 || in.Pages[1].Problem == "" ||
		in.Pages[1].At != 5 {
		t.Fatalf("%+v", in)
	}
	board, code := teacher.add(web.FrameSource{Kind: "intake",
		Intake: &web.FromIntake{Intake: in.ID, Pages: []int{0, 2}, Row: true}})
	first := board.Frames[0]
	if code != "" || first.Title != "Tides" || first.Set == nil || len(first.Polls()) != 2 ||
		first.Polls()[1].Poll.Number.Answer != "1,5" {
		t.Fatalf("%s: %+v", code, first)
	}
	id, _ := teacher.first()
	fetch := func(v *visitor, query string) (http.Header, []byte) {
		t.Helper()
		_, header, data := v.send(http.MethodGet, "/api/boards/"+id+"/questions?"+query, "", h.url)
		return header, data
	}
	for as, lossy := range map[string]bool{"text": false, "csv": false, "xlsx": false, "qti3": true, "qti2": true} {
		_, data := fetch(teacher, "as="+as+"&lost=1")
		var lost web.QuestionFile
		if err := json.Unmarshal(data, &lost); err != nil || lost.Questions < 2 ||
			lossy != strings.Contains(string(data), string(questions.LossMistakes)) {
			t.Errorf("%s: %v: %s", as, err, data)
		}
		header, data := fetch(teacher, "as="+as)
		if !strings.Contains(header.Get("Content-Disposition"), "attachment") {
			t.Errorf("%s: %v", as, header)
		}
		back := teacher.bring("back&language=de", string(data))
		teacher.send(http.MethodDelete, "/api/intakes/"+back.ID, "", h.url)
		if back.Kind != "questions" || len(back.Pages) != lost.Questions {
			t.Errorf("%s: %+v", as, back)
			continue
		}
		if q := questionOn(t, back.Pages[0].Frame); q.Text != "Which?" || q.Right() != "one" {
			t.Errorf("%s: %+v", as, q)
		}
	}
	if _, data := fetch(other, "as=text"); !bytes.Contains(data, []byte(refusal.NotFound)) {
		t.Errorf("another's board: %s", data)
	}
	if _, data := fetch(teacher, "as=spells"); !bytes.Contains(data, []byte(refusal.NotFound)) {
		t.Errorf("no such format: %s", data)
	}
	for name, body := range map[string]string{"entities": `<?xml version="1.0"?><!DOCTYPE a [<!ENTITY x SYSTEM "file:///etc/passwd">]>` +
		`<assessmentItem>&x;</assessmentItem>`, "broken": "PK\x03\x04 imsmanifest.xml"} {
		if in := teacher.bring(name, body); in.Problem == "" || len(in.Pages) != 0 {
			t.Errorf("%s: %+v", name, in)
		}
	}
}

func questionOn(t *testing.T, f *lesson.Frame) poll.Question {
	t.Helper()
	if f == nil || len(f.Polls()) != 1 {
		t.Fatalf("%+v", f)
	}
	return *f.Polls()[0].Poll
}

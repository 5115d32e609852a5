package web_test

import (
	"net/http"
	"strings"
	"testing"

	"alpenglow/core/assess"
	"alpenglow/core/output"
	"alpenglow/core/refusal"
	"alpenglow/store/storetest"
	"alpenglow/web"
)

// Between two reports a picture goes, and then a student: everything that is made of the lesson can still be made, and
// nothing of the student is in it, nor what was said to them.
func TestReportsWhenThingsGo(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines := h.teacher("ines@ternharbour.example")
	class := ines.class("8 Rowan", "Noor\nKenji")
	run := h.lessonOf(ines, class.ID)
	at, board := "/api/sessions/"+run.session, "/api/boards/"+boardOf(ines)
	ines.post(at+"/end", struct{}{}, nil)
	var recorded web.Recorded
	if got := ines.file(at+"/voices", []byte(spoken), &recorded); got != "" {
		t.Fatal(got)
	}
	said := assess.Said{Piece: assess.Piece{Student: run.noorID, Frame: "shared"}, Comment: "Well seen, Noor.",
		Voice: &recorded.Sound}
	if got := ines.post(at+"/judgements", said, nil); got != "" {
		t.Fatal(got)
	}
	everything := func(when string, noor bool) {
		t.Helper()
		for path, begins := range map[string]string{"/report": "{", "/report.pdf": "%PDF-", "/report.xlsx": "PK",
			"/letters.pdf": "%PDF-", "/record": "{", "/frames/shared": "{",
			"/levels.csv": "\ufeff", "/letters": "{"} {
			status, _, body := ines.send(http.MethodGet, at+path, "", "")
			if status != http.StatusOK || !strings.HasPrefix(string(body), begins) {
				t.Errorf("%s: %s: %d %.60s", when, path, status, body)
			}
			if text := string(body); begins != "PK" && begins != "%PDF-" && path != "/report" &&
				(strings.Contains(text, "Noor") != noor || !strings.Contains(text, "Kenji")) {
				t.Errorf("%s: %s tells of Noor: %t", when, path, !noor)
			}
		}
		for _, form := range []output.Form{output.PDF, output.PNG, output.SVG, output.InkML} {
			var m web.Making
			if got := ines.post(at+"/outputs", output.Wish{What: output.Students, Form: form, Judged: form == output.PDF},
				&m); got != "" {
				t.Fatal(got)
			}
			if m = ines.made(m); !m.Ready {
				t.Errorf("%s: %s: %+v", when, form, m)
			}
		}
		status, _, file := ines.send(http.MethodGet, board+"/file?lessons=1", "", "")
		if status != http.StatusOK {
			t.Fatalf("%s: the file: %d", when, status)
		}
		if got := strings.Contains(string(unpacked(t, file)["lessons/1.json"]), "Noor"); got != noor {
			t.Errorf("%s: the file tells of Noor: %t", when, got)
		}
		if got := ines.file("/api/boards/file", file, nil); got != "" {
			t.Errorf("%s: the file is opened: %q", when, got)
		}
	}
	everything("whole", true)
	theirs := "/api/classes/" + class.ID + "/students/" + class.Students[0].ID
	if files := ines.unzipped(theirs + "/file"); string(files["pictures/"+recorded.Sound+".wav"]) != spoken {
		t.Error("what was said to her is not in the file of what is known about her")
	}
	db := storetest.DB(t, h.db)
	db.MustExec(`DELETE FROM pictures WHERE session_id = $1 AND type LIKE 'image/%'`, run.session)
	everything("without a picture", true)
	if got := ines.remove(theirs); got != "" {
		t.Fatal(got)
	}
	everything("without Noor", false)
	if got := ines.get("/api/pictures/"+recorded.Sound, nil); got != refusal.NoSuchPicture {
		t.Errorf("what was said to her: %q", got)
	}
}

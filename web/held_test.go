package web_test

import (
	"archive/zip"
	"bytes"
	"image"
	"image/png"
	"io"
	"net/http"
	"strings"
	"testing"

	"alpenglow/core/assess"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/sheet"
	"alpenglow/live"
	"alpenglow/store"
	"alpenglow/web"
)

// A board is taken out with the lessons that were held with it, and put in by another teacher: their record says the
// same of the same students, with their photos, levels and recordings; what is spoiled leaves nothing.
func TestBoardWithLessons(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	run, code := ines.started()
	seat, _ := h.student(code, "Noor")
	h.student(code, "Kenji")
	staff, noor := ines.connect(run, live.RoleStaff), seat.connect(run, live.RoleStudent)
	shared := noor.sheet("shared", sheet.ClassOwner)
	first := note(shared, "two high tides")
	noor.mustDo(first)
	second := note(shared, "not for all")
	noor.mustDo(second)
	staff.mustDo(hide(shared, second.Add.Mark))
	var photo bytes.Buffer
	if err := png.Encode(&photo, image.NewNRGBA(image.Rect(0, 0, 40, 20))); err != nil {
		t.Fatal(err)
	}
	var up web.Uploaded
	if got := seat.file("/api/sessions/"+run+"/pictures", photo.Bytes(), &up); got != "" {
		t.Fatal(got)
	}
	noor.mustDo(sheet.Op{ID: store.NewID(), Sheet: shared, Step: sheet.Step{Kind: sheet.KindAdd, Add: &sheet.Add{
		Mark: store.NewID(), X: 500, Y: 10, W: 200, H: 100, Body: lesson.Body{Kind: lesson.KindPicture,
			Picture: &lesson.Picture{Picture: up.Picture, Alt: "our harbour"}}}}})
	at := "/api/sessions/" + run
	ines.post(at+"/end", struct{}{}, nil)
	var kept web.RecordReply
	ines.get(at+"/record", &kept)
	var recorded web.Recorded
	ines.file(at+"/voices", []byte(spoken), &recorded)
	level := 2
	var theirs string
	for _, s := range kept.Record.Students {
		if s.Name == "Noor" {
			theirs = s.ID
		}
	}
	said := assess.Said{Piece: assess.Piece{Student: theirs, Frame: "shared"}, Level: &level, Comment: "Well seen.",
		Voice: &recorded.Sound}
	if got := ines.post(at+"/judgements", said, nil); got != "" {
		t.Fatal(got)
	}

	board := "/api/boards/" + boardOf(ines) + "/file"
	if status, _, _ := other.send(http.MethodGet, board+"?lessons=1", "", ""); status != http.StatusNotFound {
		t.Errorf("somebody else's: %d", status)
	}
	status, header, alone := ines.send(http.MethodGet, board, "", "")
	if status != http.StatusOK || bytes.Contains(unpacked(t, alone)["board.json"], []byte("Noor")) ||
		len(unpacked(t, alone)) != 1 {
		t.Errorf("a board alone: %d %v", status, header)
	}
	_, _, file := ines.send(http.MethodGet, board+"?lessons=1", "", "")
	parts := unpacked(t, file)
	if len(parts) != 4 || !bytes.Contains(parts["lessons/1.json"], []byte("two high tides")) {
		t.Fatalf("%d parts", len(parts))
	}
	var made web.BoardMade
	if got := other.file("/api/boards/file", file, &made); got != "" {
		t.Fatal(got)
	}
	var shelf web.Boards
	other.get("/api/boards", &shelf)
	if len(shelf.Sessions) != 1 || shelf.Sessions[0].ID == run || shelf.Sessions[0].EndedAt == nil ||
		shelf.Sessions[0].Practice || shelf.Sessions[0].Students != 2 ||
		shelf.Sessions[0].EndedAt.Sub(shelf.Sessions[0].StartedAt) > 1e11 {
		t.Fatalf("%+v", shelf.Sessions)
	}
	there := "/api/sessions/" + shelf.Sessions[0].ID
	var again web.RecordReply
	if got := other.get(there+"/record", &again); got != "" || len(again.Record.Students) != 2 {
		t.Fatalf("%q %+v", got, again)
	}
	for i, s := range again.Record.Students {
		was := kept.Record.Students[i]
		if s.Name != was.Name || s.ID == was.ID {
			t.Errorf("%s %s was %s %s", s.Name, s.ID, was.Name, was.ID)
		}
		for k, f := range s.Frames {
			if len(f.Marks) != len(was.Frames[k].Marks) {
				t.Errorf("%s left %d marks, was %d", s.Name, len(f.Marks), len(was.Frames[k].Marks))
			}
			for _, m := range f.Marks {
				if m.Picture == nil {
					continue
				}
				if status, _, _ := other.send(http.MethodGet, "/api/pictures/"+m.Picture.Picture, "", ""); status != http.StatusOK ||
					m.Picture.Picture == up.Picture {
					t.Errorf("the photo: %d", status)
				}
			}
		}
	}
	var judged web.Judgements
	other.get(there+"/judgements", &judged)
	if len(judged.Judged) != 1 || judged.Judged[0].By != judged.Me || judged.Judged[0].Comment != "Well seen." ||
		judged.Judged[0].Level.At != 2 || judged.Judged[0].Voice == "" || judged.Judged[0].Voice == recorded.Sound {
		t.Errorf("%+v", judged.Judged)
	}
	if status, _, _ := other.send(http.MethodGet, "/api/pictures/"+judged.Judged[0].Voice, "", ""); status != http.StatusOK {
		t.Errorf("the recording: %d", status)
	}
	// It is a lesson like any other: seen in time, taken up again, and seen by nobody else.
	if got := other.get(there+"/line", nil); got != "" {
		t.Errorf("in time: %q", got)
	}
	if got := ines.get(there+"/record", nil); got != refusal.NotFound {
		t.Errorf("its first teacher: %q", got)
	}
	if got := other.post(there+"/resume", struct{}{}, nil); got != "" {
		t.Errorf("taken up again: %q", got)
	}
	other.post(there+"/end", struct{}{}, nil)

	// Spoiled in the middle, nothing of it is there.
	spoiled := bytes.Replace(parts["lessons/1.json"], []byte(`"frame":"shared"`), []byte(`"frame":"nowhere"`), 1)
	parts["lessons/1.json"] = spoiled
	if got := other.file("/api/boards/file", packed(t, parts), nil); got != refusal.FileUnreadable {
		t.Errorf("spoiled: %q", got)
	}
	var after web.Boards
	if other.get("/api/boards", &after); len(after.Boards) != len(shelf.Boards) || len(after.Sessions) != 1 {
		t.Errorf("%d boards and %d lessons, were %d and 1", len(after.Boards), len(after.Sessions), len(shelf.Boards))
	}
	// A class list of the house is not reached by a file.
	if strings.Contains(string(file), "student_id") {
		t.Error("who somebody is in the house is in the file")
	}
}

func unpacked(t *testing.T, file []byte) map[string][]byte {
	t.Helper()
	archive, err := zip.NewReader(bytes.NewReader(file), int64(len(file)))
	if err != nil {
		t.Fatal(err)
	}
	parts := map[string][]byte{}
	for _, f := range archive.File {
		r, err := f.Open()
		if err == nil {
			parts[f.Name], err = io.ReadAll(r)
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	return parts
}

func packed(t *testing.T, parts map[string][]byte) []byte {
	t.Helper()
	var file bytes.Buffer
	w := zip.NewWriter(&file)
	for name, data := range parts {
		f, err := w.Create(name)
		if err == nil {
			_, err = f.Write(data)
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	return file.Bytes()
}

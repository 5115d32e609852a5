package web_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"image"
	"image/png"
	"io"
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	"alpenglow/core/dossier"
	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/core/voices"
	"alpenglow/live"
	"alpenglow/store"
	"alpenglow/store/storetest"
	"alpenglow/web"

	"github.com/jmoiron/sqlx"
)

// unzipped reads a ZIP file.
func (v *visitor) unzipped(path string) map[string][]byte {
	v.t.Helper()
	status, _, data := v.send(http.MethodGet, path, "", "")
	archive, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if status != http.StatusOK || err != nil {
		v.t.Fatal(status, err)
	}
	files := map[string][]byte{}
	for _, f := range archive.File {
		r, err := f.Open()
		if err != nil {
			v.t.Fatal(err)
		}
		if files[f.Name], err = io.ReadAll(r); err != nil {
			v.t.Fatal(err)
		}
	}
	return files
}

// everywhere lists the rows of the whole database in which a text stands, and counts
// the rows in which it does not, by table.
func everywhere(t *testing.T, db *sqlx.DB, text string) (with []string, without map[string]int) {
	t.Helper()
	var tables []string
	if err := db.Select(&tables, `SELECT tablename FROM pg_tables WHERE schemaname = 'public' ORDER BY 1`); err != nil {
		t.Fatal(err)
	}
	without = map[string]int{}
	for _, table := range tables {
		var rows []string
		if err := db.Select(&rows, `SELECT x::text FROM "`+table+`" x`); err != nil {
			t.Fatal(err)
		}
		for _, r := range rows {
			if strings.Contains(r, text) {
				with = append(with, table+": "+r)
			} else {
				without[table]++
			}
		}
	}
	return with, without
}

// What is exported about a student is what the database has of them; erased, nothing
// of them is anywhere, and of the others everything.
func TestStudentsRights(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	class := ines.class("8 Rowan", "Noor\nKenji")
	noorID, at := class.Students[0].ID, "/api/classes/"+class.ID+"/students/"+class.Students[0].ID
	if got := ines.post("/api/classes/"+class.ID+"/plan",
		json.RawMessage(`{"sets":[{"id":"a","name":"Labs","groups":[["`+noorID+`"]]}],
		"apart":[["`+noorID+`","`+class.Students[1].ID+`"]],"seats":{"rows":1,"columns":2,"at":["","`+noorID+`"]}}`), nil); got != "" {
		t.Fatal(got)
	}
	var cards web.Cards
	ines.get("/api/classes/"+class.ID+"/cards", &cards)
	run := h.lessonOf(ines, class.ID)
	db := storetest.DB(t, h.db)
	me := run.noorID
	files := ines.unzipped(at + "/file")
	var d dossier.Dossier
	if err := json.Unmarshal(files["person.json"], &d); err != nil {
		t.Fatal(err)
	}
	if len(d.Lessons) != 1 || d.Card == nil || len(d.Classes) != 1 ||
		!slices.Equal(d.Classes[0].Groups, []string{"Labs 1"}) ||
		!slices.Equal(d.Classes[0].Seat, []int{1, 2}) ||
		d.Classes[0].Apart != 1 {
		t.Fatalf("%+v", d)
	}
	var marks, changes, pictures int
	for query, n := range map[string]*int{`SELECT count(*) FROM marks WHERE mark->>'author' = $1`: &marks,
		`SELECT count(*) FROM log WHERE author = $1`:      &changes,
		`SELECT count(*) FROM pictures WHERE author = $1`: &pictures} {
		if err := db.Get(n, query, me); err != nil {
			t.Fatal(err)
		}
	}
	l := d.Lessons[0]
	if len(l.Work) != marks || len(l.Changes) != changes || len(l.Pictures) != pictures || marks != 3 ||
		pictures != 1 ||
		len(l.Asked) != 1 || len(l.Told) != 1 || l.Picked != 1 ||
		l.Looked == nil ||
		len(l.Steered) != 1 ||
		l.Steered[0].Text != "lock" ||
		len(l.Remarks) != 1 ||
		l.Remarks[0].Text != "well drawn" ||
		l.Agreed != 1 ||
		l.Done != 1 ||
		l.Name != "Noor" {
		t.Errorf("%d marks, %d changes, %d pictures in the database; in the file %+v", marks, changes, pictures, l)
	}
	if !strings.Contains(string(files["index.html"]), "high tide at noon") ||
		len(files["pictures/"+l.Pictures[0]]) == 0 {
		t.Error("the page or the picture is missing")
	}
	if text := string(files["person.json"]); strings.Contains(text, "Kenji") ||
		strings.Contains(text, class.Students[1].ID) {
		t.Error("the file tells about somebody else")
	}
	if got := ines.remove(at); got != refusal.LessonRunning {
		t.Errorf("while the lesson runs: %q", got)
	}
	if got := ines.post("/api/sessions/"+run.session+"/end", struct{}{}, nil); got != "" {
		t.Fatal(got)
	}
	// Another class of the same person, which a colleague teaches: then it is theirs as well.
	storetest.DB(t, h.db).MustExec(`INSERT INTO students (id, class_id, name, place, person)
		SELECT gen_random_uuid(), (SELECT class_id FROM class_teachers k JOIN teachers t ON t.id = k.teacher_id
			WHERE t.email LIKE 'other%' LIMIT 1), 'Noor', 99, person FROM students WHERE id = $1`, noorID)
	for what, got := range map[string]refusal.Code{"exported": ines.get(at+"/file", nil), "erased": ines.remove(at),
		"by the colleague": other.remove(at)} {
		if got != refusal.NotAllTheirs && what != "by the colleague" ||
			what == "by the colleague" && got != refusal.NotFound {
			t.Errorf("%s by one of two teachers: %q", what, got)
		}
	}
	rosa := h.administrator()
	var found web.Persons
	if rosa.get("/api/persons?name=noo", &found); len(found.Persons) < 1 {
		t.Fatalf("%+v", found)
	}
	person := ""
	db.Get(&person, `SELECT person FROM students WHERE id = $1`, noorID)
	_, before := everywhere(t, db, me)
	// What others said about their work goes with that work.
	for _, table := range []string{"marks", "log", "activity"} {
		var onTheirs int
		if err := db.Get(&onTheirs, `SELECT count(*) FROM `+table+` x WHERE x::text NOT LIKE '%' || $1 || '%'
			AND sheet_id IN (SELECT id FROM sheets WHERE owner = $1)`, me); err != nil || onTheirs != 1 {
			t.Fatal(table, onTheirs, err)
		}
		before[table] -= onTheirs
	}
	status, _, text := rosa.send(http.MethodDelete, "/api/persons/"+person, "", h.url)
	var receipt web.Receipt
	if err := json.Unmarshal(text, &receipt); status != http.StatusOK || err != nil {
		t.Fatal(status, string(text))
	}
	if receipt.Classes != 2 || receipt.Lessons != 1 || receipt.Marks < marks || receipt.Pictures != 1 || !receipt.Card {
		t.Errorf("the receipt: %+v", receipt)
	}
	for _, id := range []string{me, noorID, person, "high tide at noon", "Why two?"} {
		if with, _ := everywhere(t, db, id); len(with) > 0 {
			t.Errorf("%s is there still: %.300s", id, with)
		}
	}
	_, after := everywhere(t, db, me)
	for table, n := range before {
		if after[table] < n && table != "students" && table != "cards" && table != "logins" && table != "pictures" &&
			table != "passes" && table != "sheets" {
			t.Errorf("%s: %d rows that were not theirs before, %d now", table, n, after[table])
		}
	}
	// Kenji's work stands, and the record can be read.
	var reply web.RecordReply
	if got := ines.get("/api/sessions/"+run.session+"/record", &reply); got != "" || len(reply.Record.Students) != 1 ||
		len(reply.Record.Students[0].Frames[0].Marks) != 1 {
		t.Errorf("the record: %q %+v", got, reply.Record.Students)
	}
	if got := rosa.remove("/api/persons/" + person); got != refusal.NotFound {
		t.Errorf("erased twice: %q", got)
	}
}

type rightsRun struct{ session, noorID string }

// lessonOf runs a lesson in which Noor and Kenji do something of everything.
func (h *house) lessonOf(ines *visitor, class string) rightsRun {
	h.t.Helper()
	var boards web.Boards
	ines.get("/api/boards", &boards)
	var started web.Started
	if got := ines.post("/api/boards/"+boards.Boards[0].ID+"/sessions", web.StartSession{Class: class, Listed: true,
		Pace: session.Led},
		&started); got != "" {
		h.t.Fatal(got)
	}
	code := ines.code(started.Session)
	noor, _ := h.student(code, "Noor")
	kenji, _ := h.student(code, "Kenji")
	staff, n, k := ines.connect(started.Session, live.RoleStaff), noor.connect(started.Session, live.RoleStudent),
		kenji.connect(started.Session, live.RoleStudent)
	shared := n.sheet("shared", "class")
	do := func(l *line, op sheet.Op) sheet.Op {
		h.t.Helper()
		l.mustDo(op)
		return op
	}
	first := do(n, note(shared, "high tide at noon"))
	second := do(k, note(shared, "low tide in the evening"))
	do(
		n,
		sheet.Op{
			ID:    store.NewID(),
			Sheet: shared,
			Step:  sheet.Step{Kind: sheet.KindAgree, Agree: &sheet.Agree{Mark: second.Add.Mark, Yes: true}},
		},
	)
	do(
		k,
		sheet.Op{
			ID:    store.NewID(),
			Sheet: shared,
			Step:  sheet.Step{Kind: sheet.KindAgree, Agree: &sheet.Agree{Mark: first.Add.Mark, Yes: true}},
		},
	)
	x := 700.0
	do(staff, sheet.Op{ID: store.NewID(), Sheet: shared, Step: sheet.Step{Kind: sheet.KindSet,
		Set: &sheet.Set{Mark: first.Add.Mark, Properties: lesson.Properties{X: &x}}}})
	gone := do(n, note(shared, "a slip"))
	do(
		n,
		sheet.Op{
			ID:    store.NewID(),
			Sheet: shared,
			Step:  sheet.Step{Kind: sheet.KindRemove, Remove: &sheet.Remove{Mark: gone.Add.Mark}},
		},
	)
	var up web.Uploaded
	var file bytes.Buffer
	if err := png.Encode(&file, image.NewGray(image.Rect(0, 0, 40, 40))); err != nil {
		h.t.Fatal(err)
	}
	if got := noor.file("/api/sessions/"+started.Session+"/pictures", file.Bytes(), &up); got != "" {
		h.t.Fatal(got)
	}
	do(
		n,
		sheet.Op{
			ID:    store.NewID(),
			Sheet: shared,
			Step: sheet.Step{Kind: sheet.KindAdd, Add: &sheet.Add{Mark: store.NewID(), X: 10, Y: 300,
				W: 200, H: 200, Body: lesson.Body{Kind: lesson.KindPicture,
					Picture: &lesson.Picture{Picture: up.Picture}}}},
		},
	)
	for _, w := range []voices.Word{{Kind: voices.KindAsk, Ask: &voices.Ask{ID: store.NewID(), Text: "Why two?"}},
		{Kind: voices.KindDone, Done: &voices.Done{Frame: "shared", Yes: true}},
		{Kind: voices.KindHelp, Help: &voices.Help{Yes: true}}} {
		if code := n.call(live.MethodSay, w, nil); code != "" {
			h.t.Fatal("say", w.Kind, code)
		}
	}
	people, err := h.store.Participants(h.t.Context(), started.Session)
	if err != nil {
		h.t.Fatal(err)
	}
	words := []voices.Word{{Kind: voices.KindLook, Look: &voices.Look{Student: people[0].ID}},
		{
			Kind: voices.KindTell,
			Tell: &voices.Tell{Student: people[0].ID, Text: "Well seen", About: "high tide at noon"},
		},
		{Kind: voices.KindPick, Pick: &voices.Pick{Without: []string{people[1].ID}}}}
	for _, w := range words {
		if code := staff.call(live.MethodSay, w, nil); code != "" {
			h.t.Fatal("say", w.Kind, code)
		}
	}
	staff.command(
		session.Command{Kind: session.KindLock, Lock: &session.Lock{Student: people[0].ID, On: true, Seconds: 60}},
	)
	staff.command(session.Command{Kind: session.KindGo, Go: &session.Go{Frame: "own"}})
	theirs := n.sheet("own", people[0].ID)
	staff.command(
		session.Command{Kind: session.KindWalk, Walk: &session.SetWalk{Frame: "own", Stops: []string{people[1].ID,
			people[0].ID}, At: 1, Replies: true}},
	)
	do(k, remark(theirs, "well drawn"))
	staff.command(session.Command{Kind: session.KindGo, Go: &session.Go{Frame: "shared"}})
	time.Sleep(50 * time.Millisecond)
	return rightsRun{started.Session, people[0].ID}
}

// A record goes when its time is over, of the class or of the house, and is announced.
func TestRetention(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines := h.teacher("ines@ternharbour.example")
	class := ines.class("8 Rowan", "Noor")
	run := ines.teaches(class.ID, false)
	ines.post("/api/sessions/"+run+"/end", struct{}{}, nil)
	three := 3
	if got := ines.post("/api/classes/"+class.ID+"/keep", web.SetKeep{Months: &three}, nil); got != "" {
		t.Fatal(got)
	}
	var boards web.Boards
	if ines.get("/api/boards", &boards); boards.Sessions[0].GoesAt != nil {
		t.Error("announced three months before")
	}
	forget := func(months, days, want int) {
		t.Helper()
		gone, err := h.store.ForgetRecords(t.Context(), time.Now().AddDate(0, months, days))
		if err != nil || len(gone) != want {
			t.Errorf("after %d months: %v, %v", months, gone, err)
		}
	}
	forget(3, -1, 0)
	storetest.DB(t, h.db).MustExec(`UPDATE sessions SET ended_at = now() - interval '80 days' WHERE id = $1`, run)
	if ines.get("/api/boards", &boards); boards.Sessions[0].GoesAt == nil {
		t.Error("not announced")
	}
	zero, many := 0, 121
	ines.post("/api/classes/"+class.ID+"/keep", web.SetKeep{Months: &zero}, nil)
	forget(36, 0, 0)
	ines.post("/api/classes/"+class.ID+"/keep", web.SetKeep{}, nil)
	forget(23, 0, 1) // as the house says: 24, of which 80 days are over
	if got := ines.post("/api/classes/"+class.ID+"/keep", web.SetKeep{Months: &many}, nil); got != refusal.Malformed {
		t.Errorf("121 months: %q", got)
	}
}

// An account is exported with its boards, and erased once its owner has left.
func TestTeachersRights(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	rosa, ines := h.administrator(), h.teacher("ines@ternharbour.example")
	ines.started()
	files := ines.unzipped("/api/account/file")
	var account web.AccountFile
	if err := json.Unmarshal(files["account.json"], &account); err != nil ||
		account.Email != "ines@ternharbour.example" ||
		len(account.Lessons) != 1 ||
		len(account.SignIns) != 1 ||
		len(files) != 2 {
		t.Errorf("%v %+v, %d files", err, account, len(files))
	}
	me, err := h.store.TeacherByEmail(t.Context(), "ines@ternharbour.example")
	if err != nil {
		t.Fatal(err)
	}
	at, yes := "/api/staff/people/"+me.ID, true
	if got := rosa.remove(at); got != refusal.StillThere {
		t.Errorf("somebody who is there: %q", got)
	}
	rosa.post(at, web.SetStanding{Left: &yes}, nil)
	if status, _, text := rosa.send(http.MethodDelete, at, "", h.url); status != http.StatusOK ||
		!strings.Contains(string(text), `"boards":1,"lessons":1`) {
		t.Errorf("%d %s", status, text)
	}
	if with, _ := everywhere(t, storetest.DB(t, h.db), "ines@"); len(with) > 0 {
		t.Errorf("there still: %.200s", with)
	}
}

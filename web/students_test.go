package web_test

import (
	"bytes"
	"net/http"
	"testing"
	"time"

	"alpenglow/core/refusal"
	"alpenglow/core/roster"
	"alpenglow/core/session"
	"alpenglow/live"
	"alpenglow/standin"
	"alpenglow/web"
)

// class makes a class of a list and gives it.
func (v *visitor) class(name, list string) web.ClassPage {
	v.t.Helper()
	var made web.ClassMade
	if code := v.post("/api/classes", web.NewClass{Name: name, List: list}, &made); code != "" {
		v.t.Fatal(code)
	}
	return v.classOf(made.Class)
}

func (v *visitor) classOf(id string) web.ClassPage {
	v.t.Helper()
	var book web.ClassBook
	v.get("/api/classes", &book)
	for _, k := range book.Classes {
		if k.ID == id {
			return k
		}
	}
	return web.ClassPage{}
}

// file sends a file.
func (v *visitor) file(path string, data []byte, into any) refusal.Code {
	v.t.Helper()
	return v.read(into)(v.send(http.MethodPost, path, string(data), v.url))
}

func (v *visitor) remove(path string) refusal.Code {
	v.t.Helper()
	return v.read(nil)(v.send(http.MethodDelete, path, "", v.url))
}

// teaches starts a lesson of a new board with a class and gives its id.
func (v *visitor) teaches(class string, listed bool) string {
	v.t.Helper()
	var board web.BoardMade
	if code := v.post("/api/boards", web.NewBoard{Title: "Tides"}, &board); code != "" {
		v.t.Fatal(code)
	}
	var started web.Started
	if code := v.post("/api/boards/"+board.Board+"/sessions", web.StartSession{Class: class, Listed: listed,
		Pace: session.Led},
		&started); code != "" {
		v.t.Fatal(code)
	}
	return started.Session
}

// Two of one name are told apart, in the list, when they choose their names and in the
// lesson; a name card brings its student back as themselves on any device, and a lost
// one opens nothing any more.
func TestNameCards(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines := h.teacher("ines@ternharbour.example")
	class := ines.class("8 Rowan", "Noor\nKenji\nNoor")
	if class.Students[2].Apart != "Noor 2" || class.Students[0].Apart != "" {
		t.Fatalf("%+v", class.Students)
	}
	var cards web.Cards
	ines.get("/api/classes/"+class.ID+"/cards", &cards)
	if len(cards.Cards) != 3 || cards.Cards[2].Name != "Noor 2" || len(cards.Cards[0].Code) != 9 ||
		cards.Cards[0].QR == "" {
		t.Fatalf("%+v", cards)
	}
	card := func(i int) web.ByCard { return web.ByCard{Card: cards.Cards[i].Code} }
	phone := h.visitor()
	if got := phone.post("/api/join/card", card(2), nil); got != refusal.NoLessonNow {
		t.Errorf("without a lesson: %q", got)
	}
	run := ines.teaches(class.ID, true)
	var found web.JoinFound
	code := ines.code(run)
	h.visitor().post("/api/join/check", web.JoinCode{Code: code}, &found)
	if len(found.Names) != 3 || found.Names[2] != "Noor 2" {
		t.Fatalf("the names to choose from: %q", found.Names)
	}
	_, first := h.student(code, "Noor 2")
	var in web.CameIn
	if got := phone.post("/api/join/card", card(2), &in); got != "" || in.Seat == nil || *in.Seat != first {
		t.Fatalf("on another device: %q %+v, want %+v", got, in, first)
	}
	people, err := h.store.Participants(t.Context(), run)
	if err != nil || len(people) != 1 || people[0].StudentID == nil || *people[0].StudentID != class.Students[2].ID {
		t.Fatalf("who is there: %+v, %v", people, err)
	}
	// A card that comes first makes the seat; another lesson of the class asks which one.
	kenji := h.visitor()
	if got := kenji.post("/api/join/card", card(1), &in); got != "" || in.Seat.Name != "Kenji" {
		t.Fatalf("Kenji: %q %+v", got, in.Seat)
	}
	second := ines.teaches(class.ID, false)
	in = web.CameIn{}
	if got := h.visitor().post("/api/join/card", card(1), &in); got != "" || in.Seat != nil || len(in.Lessons) != 2 ||
		in.Lessons[0].Session != second {
		t.Fatalf("two lessons: %q %+v", got, in)
	}
	at := "/api/classes/" + class.ID + "/cards/" + class.Students[2].ID
	other := h.teacher("other@ternharbour.example")
	if got := other.remove(at); got != refusal.NotFound {
		t.Errorf("another teacher drops a card: %q", got)
	}
	if got := ines.remove(at); got != "" {
		t.Fatal(got)
	}
	var me web.Me
	if phone.get("/api/me", &me); me.Seat != nil {
		t.Errorf("the device of a lost card is there still: %+v", me.Seat)
	}
	for _, lost := range []web.ByCard{card(2), {Card: "22222222"}} {
		if got := phone.post("/api/join/card", lost, nil); got != refusal.CardUnknown {
			t.Errorf("a card that is good no more: %q", got)
		}
	}
	if got := phone.post("/api/join/card", web.ByCard{Card: "K7M2"}, nil); got != refusal.CardMistyped {
		t.Errorf("half a code: %q", got)
	}
	ines.get("/api/classes/"+class.ID+"/cards", &cards)
	if got := phone.post("/api/join/card", web.ByCard{Card: cards.Cards[2].Code, Session: run}, &in); got != "" ||
		in.Seat.Name != "Noor 2" {
		t.Errorf("the next card: %q %+v", got, in.Seat)
	}
}

// A card on many devices at once is one participant, also where nobody was there before.
func TestCardAtOnce(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines := h.teacher("ines@ternharbour.example")
	class := ines.class("8 Rowan", "Noor")
	var cards web.Cards
	ines.get("/api/classes/"+class.ID+"/cards", &cards)
	run := ines.teaches(class.ID, true)
	seats := make(chan web.CameIn)
	for range 10 {
		go func() {
			var in web.CameIn
			if got := h.visitor().post("/api/join/card", web.ByCard{Card: cards.Cards[0].Code}, &in); got != "" {
				t.Errorf("%q", got)
			}
			seats <- in
		}()
	}
	for range 10 {
		if in := <-seats; in.Seat == nil || in.Seat.Name != "Noor" {
			t.Errorf("%+v", in.Seat)
		}
	}
	people, err := h.store.Participants(t.Context(), run)
	found, failed := h.store.Numbers(t.Context(), run)
	if err != nil || failed != nil || len(people) != 1 || found.People != 1 {
		t.Errorf("%d participants, %d counted: %v, %v", len(people), found.People, err, failed)
	}
}

// Cards are guessed as little as codes.
func TestGuessingCards(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	v, late := h.visitor(), refusal.Code("")
	for range 40 {
		late = v.post("/api/join/card", web.ByCard{Card: roster.Card(func(n int) int { return n - 1 })}, nil)
	}
	if late != refusal.TooMany {
		t.Errorf("the fortieth guess: %q", late)
	}
}

// A typed name is tied to a student by the teacher, likely ones first, and loose again.
func TestTying(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	class := ines.class("8 Rowan", "Noor Haddad\nKenji Mori")
	run := ines.teaches(class.ID, false)
	h.student(ines.code(run), "Kenij")
	people, err := h.store.Participants(t.Context(), run)
	if err != nil || people[0].StudentID != nil {
		t.Fatal(people, err)
	}
	at := "/api/sessions/" + run + "/people/" + people[0].ID
	var likely web.LikelyStudents
	if got := ines.get(at+"/likely", &likely); got != "" || len(likely.Likely) != 1 ||
		likely.Likely[0].Name != "Kenji Mori" ||
		len(likely.Others) != 1 {
		t.Fatalf("%q %+v", got, likely)
	}
	kenji := class.Students[1].ID
	elsewhere := other.class("8 Rowan", "Kenji").Students[0].ID
	for what, got := range map[string]refusal.Code{
		"by another teacher":      other.post(at+"/student", web.TieStudent{Student: kenji}, nil),
		"to another class's":      ines.post(at+"/student", web.TieStudent{Student: elsewhere}, nil),
		"likely, another teacher": other.get(at+"/likely", nil),
		"somebody of no lesson": ines.post("/api/sessions/"+run+"/people/"+kenji+"/student",
			web.TieStudent{Student: kenji}, nil),
		"an id that is none": ines.post("/api/sessions/"+run+"/people/x/student",
			web.TieStudent{Student: kenji}, nil),
		"a student who is no UUID": ines.post(at+"/student", web.TieStudent{Student: "x"}, nil),
	} {
		if got != refusal.NotFound {
			t.Errorf("%s: %q", what, got)
		}
	}
	for _, student := range []string{kenji, "", kenji} {
		if got := ines.post(at+"/student", web.TieStudent{Student: student}, nil); got != "" {
			t.Fatal(got)
		}
		people, _ = h.store.Participants(t.Context(), run)
		if tied := people[0].StudentID; (tied == nil) != (student == "") || tied != nil && *tied != student {
			t.Errorf("tied to %v, want %q", tied, student)
		}
	}
}

// A student is one person over the year: moved, merged, and taken into the next year.
func TestStudentsOverTheYear(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	rowan, larch := ines.class("8 Rowan", "Noor\nKenji\nKenji M."), ines.class("8 Larch", "Vera")
	theirs := other.class("8 Alder", "Max")
	at := "/api/classes/" + rowan.ID
	run := ines.teaches(rowan.ID, true)
	h.student(ines.code(run), "Noor")
	h.student(ines.code(run), "Kenji M.")
	noor, kenji, twin := rowan.Students[0].ID, rowan.Students[1].ID, rowan.Students[2].ID
	for what, got := range map[string]refusal.Code{
		"moved to a colleague's":  ines.post(at+"/students/"+noor+"/move", web.MoveStudent{To: theirs.ID}, nil),
		"moved by a colleague":    other.post(at+"/students/"+noor+"/move", web.MoveStudent{To: theirs.ID}, nil),
		"moved to where they are": ines.post(at+"/students/"+noor+"/move", web.MoveStudent{To: rowan.ID}, nil),
		"merged across classes": ines.post(at+"/students/"+noor+"/merge",
			web.MergeStudents{With: larch.Students[0].ID}, nil),
		"merged with themselves":   ines.post(at+"/students/"+noor+"/merge", web.MergeStudents{With: noor}, nil),
		"merged by a colleague":    other.post(at+"/students/"+noor+"/merge", web.MergeStudents{With: kenji}, nil),
		"next year of a colleague": other.post(at+"/next", web.NextYear{Name: "9 Rowan"}, nil),
	} {
		if got != refusal.NotFound {
			t.Errorf("%s: %q", what, got)
		}
	}
	if got := ines.post(at+"/students/"+noor+"/move", web.MoveStudent{To: larch.ID}, nil); got != "" {
		t.Fatal(got)
	}
	if got := ines.post(at+"/students/"+kenji+"/merge", web.MergeStudents{With: twin}, nil); got != "" {
		t.Fatal(got)
	}
	people, err := h.store.Participants(t.Context(), run)
	if err != nil || *people[0].StudentID != noor || *people[1].StudentID != kenji {
		t.Errorf("their work is not theirs any more: %+v, %v", people, err)
	}
	var cards, next web.Cards
	ines.get(at+"/cards", &cards)
	var made web.ClassMade
	if got := ines.post(at+"/next", web.NextYear{Name: "9 Rowan"}, &made); got != "" {
		t.Fatal(got)
	}
	if page := ines.classOf(made.Class); len(page.Students) != 1 || page.Students[0].ID == kenji {
		t.Errorf("next year: %+v", page)
	}
	if !ines.classOf(rowan.ID).Archived {
		t.Error("last year's class is not put away")
	}
	if ines.get("/api/classes/"+made.Class+"/cards", &next); next.Cards[0].Code != cards.Cards[0].Code {
		t.Error("their card is another one")
	}
}

// Who teaches a class together sees its lessons and leads them; who does no more is out.
func TestTeachingTogether(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines, emil := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	class := ines.class("8 Rowan", "Noor\nKenji")
	run := ines.teaches(class.ID, false)
	var book web.ClassBook
	ines.get("/api/classes", &book)
	colleague := book.Colleagues[0].ID
	at, record := "/api/classes/"+class.ID+"/teachers", "/api/sessions/"+run+"/record"
	if got := emil.get(record, nil); got != refusal.NotFound {
		t.Fatalf("before: %q", got)
	}
	if got := emil.post(at, web.TeachTogether{Teacher: colleague, Teaches: true}, nil); got != refusal.NotFound {
		t.Fatalf("into a colleague's class: %q", got)
	}
	if got := ines.post(at, web.TeachTogether{Teacher: colleague, Teaches: true}, nil); got != "" {
		t.Fatal(got)
	}
	var boards web.Boards
	emil.get("/api/boards", &boards)
	if len(boards.Sessions) != 1 || boards.Sessions[0].By == "" || len(boards.Boards) != 1 {
		t.Fatalf("what the colleague sees: %+v", boards)
	}
	for _, path := range []string{record, "/api/boards/" + run, "/api/sessions/" + run + "/invitation"} {
		if got := emil.get(path, nil); got != "" {
			t.Errorf("%s: %q", path, got)
		}
	}
	line := emil.connect(run, live.RoleStaff)
	line.command(session.Command{Kind: session.KindPause, Pause: &session.Pause{On: true}})
	if got := ines.post(at, web.TeachTogether{Teacher: colleague}, nil); got != "" {
		t.Fatal(got)
	}
	select {
	case why := <-line.closed:
		if why == nil || why.Code != 4501 {
			t.Errorf("closed with %v", why)
		}
	case <-time.After(5 * time.Second):
		t.Error("the lesson is open still")
	}
	if got := emil.get(record, nil); got != refusal.NotFound {
		t.Errorf("afterwards: %q", got)
	}
	me, err := h.store.TeacherByEmail(t.Context(), "ines@ternharbour.example")
	if err != nil {
		t.Fatal(err)
	}
	if got := ines.post(at, web.TeachTogether{Teacher: me.ID}, nil); got != refusal.LastTeacher {
		t.Errorf("a class without a teacher: %q", got)
	}
}

// A register is looked at, taken, and taken again when it has changed.
func TestRegister(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines := h.teacher("ines@ternharbour.example")
	var file bytes.Buffer
	if err := standin.WriteRegister(&file, 1); err != nil {
		t.Fatal(err)
	}
	var look web.RegisterLook
	if got := ines.file("/api/register", file.Bytes(), &look); got != "" || len(look.Classes) != 6 ||
		len(look.Problems) != 0 {
		t.Fatalf("%q %+v", got, look)
	}
	for range 2 { // twice does nothing twice
		if got := ines.file("/api/register?take=class-3&take=class-1&take=none", file.Bytes(), nil); got != "" {
			t.Fatal(got)
		}
	}
	var book web.ClassBook
	sizes := map[string]int{}
	ines.get("/api/classes", &book)
	for _, k := range book.Classes {
		sizes[k.Name] = max(sizes[k.Name], len(k.Students))
	}
	if len(book.Classes) != 3 || sizes["7 Alder"] != 27 || sizes["8 Juniper"] != 26 {
		t.Fatalf("%v", sizes)
	}
	if got := ines.file("/api/register", file.Bytes(), &look); got != "" || !look.Classes[3].There {
		t.Errorf("%q %+v", got, look.Classes)
	}
	if got := ines.file("/api/register", []byte("PK"), nil); got != refusal.FileUnreadable {
		t.Errorf("no register: %q", got)
	}
	if got := ines.file("/api/list/file", []byte("Name;Klasse\nJ\xfcrgen;8\n"), nil); got != "" {
		t.Errorf("a list: %q", got)
	}
	if got := ines.file("/api/list/file", make([]byte, 3<<20), nil); got != refusal.FileHuge {
		t.Errorf("a list of 3 MiB: %q", got)
	}
}

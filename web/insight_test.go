package web_test

import (
	"encoding/csv"
	"strings"
	"testing"

	"alpenglow/core/record"
	"alpenglow/core/session"
	"alpenglow/core/voices"
	"alpenglow/live"
	"alpenglow/web"
)

// Who was drawn in one lesson is drawn less in the next one of the class.
func TestPickedOverLessons(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines := h.teacher("ines@ternharbour.example")
	class := ines.class("8 Rowan", "Noor\nKenji\nAmara")
	drawn := map[string]int{}
	for range 3 {
		lesson := ines.teaches(class.ID, true)
		code := ines.code(lesson)
		for _, name := range []string{"Noor", "Kenji", "Amara"} {
			seat, _ := h.student(code, name)
			seat.connect(lesson, live.RoleStudent)
		}
		staff := ines.connect(lesson, live.RoleStaff)
		var said live.Said
		if code := staff.call(live.MethodSay, voices.Word{Kind: voices.KindPick, Pick: &voices.Pick{}},
			&said); code != "" {
			t.Fatal(code)
		}
		var hello live.StaffHello
		staff.call(live.MethodHello, struct{}{}, &hello)
		for _, p := range hello.People {
			if p.ID == said.All.Picked[0].Student {
				drawn[p.Student]++
			}
		}
	}
	if len(drawn) != 3 {
		t.Errorf("in three lessons with three students were drawn: %v", drawn)
	}
}

// The overview counts what each has done, also what waits; and the notes that say the
// same are offered as one group.
func TestOverview(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	id, staff, noor, kenji := h.running()
	ines := h.teacher("ines@ternharbour.example")
	frame := staff.hello.State.Frame
	class := noor.sheet(frame, "class")
	noor.mustDo(note(class, "The Moon pulls the water"))
	noor.mustDo(note(class, "it is windy"))
	staff.command(session.Command{Kind: session.KindHold, Hold: &session.Hold{On: true}})
	kenji.mustDo(note(class, "the moon is pulling at the water"))
	var c record.Coverage
	if code := ines.get("/api/sessions/"+id+"/coverage", &c); code != "" {
		t.Fatal(code)
	}
	by := map[string]record.Cell{}
	for _, s := range c.Students {
		if cell := s.Cells[0]; cell != nil {
			by[s.Name] = *cell
		}
	}
	if by["Noor"] != (record.Cell{Marks: 2, Notes: 2, Words: 8}) || by["Kenji"].Words != 7 || c.Spoken.Total != 3 {
		t.Errorf("%+v, %+v", by, c.Spoken)
	}
	_, header, text := ines.send("GET", "/api/sessions/"+id+"/coverage.csv", "", "")
	rows, err := csv.NewReader(strings.NewReader(strings.TrimPrefix(string(text), "\uFEFF"))).ReadAll()
	if want := 1 + len(c.Students)*len(c.Frames); err != nil || len(rows) != want ||
		header.Get("Content-Type") != "text/csv; charset=utf-8" {
		t.Errorf("%d rows, want %d (%v)", len(rows), want, err)
	}
	var alike web.Alike
	if code := ines.get("/api/sessions/"+id+"/alike?frame="+frame, &alike); code != "" {
		t.Fatal(code)
	}
	if len(alike.Notes) != 3 || len(alike.Groups) != 1 || len(alike.Groups[0].Texts) != 2 {
		t.Errorf("%+v", alike)
	}
}

// Names go off in the middle of a lesson: who has them forgets them, and who comes then
// is told none; the teacher is, always; and on again they are there.
func TestNamesOff(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	id, staff, noor, kenji := h.running()
	front := h.teacher("ines@ternharbour.example").connect(id, live.RoleFront)
	staff.command(session.Command{Kind: session.KindNames, Names: &session.Names{Off: true}})
	for name, l := range map[string]*line{"Noor": noor, "Kenji": kenji, "the front screen": front} {
		if !l.until(`"people":{"people":[],"all":true}`) {
			t.Errorf("%s is not told to forget names", name)
		}
	}
	code := h.teacher("ines@ternharbour.example").code(id)
	seat, _ := h.student(code, "Wilhelmina")
	seat.connect(id, live.RoleStudent)
	late, _ := h.student(code, "Zofia")
	other := late.connect(id, live.RoleStudent)
	if !staff.until("Wilhelmina") {
		t.Error("the teacher does not learn a name")
	}
	for name, l := range map[string]*line{"Noor": noor, "who comes later": other, "the front screen": front} {
		if l.everHeard("Wilhelmina") {
			t.Errorf("%s learns a name", name)
		}
	}
	if other.everHeard("Kenji") {
		t.Error("who comes later learns who was there")
	}
	staff.command(session.Command{Kind: session.KindNames, Names: &session.Names{}})
	if !noor.until("Wilhelmina") || !front.until("Wilhelmina") {
		t.Error("names are on again, and not told")
	}
}

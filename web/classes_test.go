package web_test

import (
	"strings"
	"sync"
	"testing"

	"alpenglow/core/refusal"
	"alpenglow/web"
)

// A class is made from a list, looked after, and put away; it is nobody else's, and who
// has left it, or a class that is put away, is not offered for lessons.
func TestClasses(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	var rows web.NameRows
	list := "Surname;First name\nHaddad;Noor\n;\n...;\nMori;Kenji"
	if code := ines.post("/api/list", web.NameList{List: list}, &rows); code != "" || len(rows.Rows) != 3 ||
		rows.Rows[0].Name != "Noor Haddad" || rows.Rows[1].Problem != refusal.NameEmpty {
		t.Fatalf("%q: %+v", code, rows)
	}
	var made web.ClassMade
	for _, c := range []struct {
		name, list string
		want       refusal.Code
	}{
		{" ", list, refusal.NameEmpty}, {"8 Rowan", "...", refusal.NameEmpty},
		{strings.Repeat("x", 61), list, refusal.NameTooLong}, {"8\u202eRowan", list, refusal.NameControl},
		{"8 Rowan", strings.Repeat("Noor\n", 401), refusal.TooMany}, {"8  Rowan ", list, ""},
	} {
		if got := ines.post("/api/classes", web.NewClass{Name: c.name, List: c.list}, &made); got != c.want {
			t.Errorf("%.20q of %.20q: %q, want %q", c.name, c.list, got, c.want)
		}
	}
	rowan := func() web.ClassPage {
		t.Helper()
		var book web.ClassBook
		ines.get("/api/classes", &book)
		for _, k := range book.Classes {
			if k.ID == made.Class {
				return k
			}
		}
		t.Fatal("the class is gone")
		return web.ClassPage{}
	}
	at, page := "/api/classes/"+made.Class, rowan()
	if page.Name != "8 Rowan" || len(page.Students) != 2 {
		t.Fatalf("%+v", page)
	}
	yes, no, name, long := true, false, "Noor H.", strings.Repeat("x", 41)
	student := at + "/students/" + page.Students[0].ID
	for what, c := range map[string]struct{ got, want refusal.Code }{
		"another teacher's list": {other.post("/api/list", web.NameList{Class: made.Class, List: "Noor"}, nil),
			refusal.NotFound},
		"renamed by another":    {other.post(at, web.SetClass{Name: &name}, nil), refusal.NotFound},
		"filled by another":     {other.post(at+"/students", web.NameList{List: "Vera"}, nil), refusal.NotFound},
		"a student, by another": {other.post(student, web.SetStudent{Name: &name}, nil), refusal.NotFound},
		"by nobody":             {h.visitor().post(at, web.SetClass{Name: &name}, nil), refusal.SignInNeeded},
		"a name too long":       {ines.post(student, web.SetStudent{Name: &long}, nil), refusal.NameTooLong},
		"a student of no class": {ines.post("/api/classes/"+made.Class+"/students/x", web.SetStudent{Left: &yes},
			nil), refusal.NotFound},
		"a student of the class": {ines.post(student, web.SetStudent{Name: &name, Left: &yes}, nil), ""},
		"one more":               {ines.post(at+"/students", web.NameList{List: "Vera Lind"}, nil), ""},
		"another teacher's student": {ines.post(at+"/students/"+made.Class, web.SetStudent{Left: &no}, nil),
			refusal.NotFound},
	} {
		if c.got != c.want {
			t.Errorf("%s: %q, want %q", what, c.got, c.want)
		}
	}
	if page = rowan(); len(page.Students) != 3 || page.Students[0].Name != name || !page.Students[0].Left ||
		page.Students[2].Name != "Vera Lind" {
		t.Errorf("%+v", page)
	}
	// Many lists at once: no class has more students than it may.
	var all sync.WaitGroup
	for range 6 {
		all.Go(func() { ines.post(at+"/students", web.NameList{List: strings.Repeat("Max\n", 99)}, nil) })
	}
	all.Wait()
	here := 0
	for _, s := range rowan().Students {
		if !s.Left {
			here++
		}
	}
	if here != 2+4*99 {
		t.Errorf("%d students", here)
	}
	offered := func() bool {
		var boards web.Boards
		ines.get("/api/boards", &boards)
		for _, k := range boards.Classes {
			if k.ID == made.Class && k.Students == here {
				return true
			}
		}
		return false
	}
	if !offered() {
		t.Error("the class is not offered, or with those who left")
	}
	if code := ines.post(at, web.SetClass{Archived: &yes}, nil); code != "" || offered() {
		t.Errorf("put away %q, and still offered", code)
	}
	if code := ines.post(at, web.SetClass{Archived: &no}, nil); code != "" || !offered() {
		t.Errorf("brought back %q", code)
	}
}

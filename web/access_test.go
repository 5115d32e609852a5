package web_test

import (
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	"alpenglow/core/account"
	"alpenglow/core/refusal"
	"alpenglow/core/settings"
	"alpenglow/web"

	"github.com/gin-gonic/gin"
)

// access says who may use a route.
type access string

const (
	anybody       access = "anybody"       // it decides by what is asked
	signedIn      access = "signed in"     // but a guest
	teaching      access = "teaching"      // guests too; on what is their own
	member        access = "member"        // teaching, but a guest
	administrator access = "administrator" // looks after the house
)

// routes says of every route who may use it, and where it needs more than an empty
// object, with what. A route that is missing here fails the test.
var routes = map[string]struct {
	who  access
	body string
}{
	"GET /healthz": {who: anybody}, "GET /readyz": {who: anybody}, "GET /metrics": {who: anybody},
	"GET /api/paper": {who: anybody}, "GET /api/me": {who: anybody}, "POST /api/sign-in": {who: anybody},
	"POST /api/sign-out": {who: anybody}, "POST /api/guest": {who: anybody}, "POST /api/reset": {who: anybody},
	"GET /api/mailbox": {who: anybody}, "POST /api/invitation/check": {who: anybody},
	"POST /api/invitation/accept": {
		who: anybody,
	}, "POST /api/join/check": {who: anybody}, "POST /api/join": {who: anybody},
	"POST /api/join/knock": {
		who: anybody,
	}, "POST /api/join/wait": {who: anybody}, "POST /api/join/card": {who: anybody},
	"POST /api/front": {who: anybody}, "GET /api/front": {who: anybody}, "POST /api/leave": {who: anybody},
	// A seat or a front screen opens these as well: tested where they are.
	"POST /api/sessions/:id/pictures": {who: anybody}, "GET /api/pictures/:id": {who: anybody},
	"GET /api/sessions/:id/invitation": {who: teaching}, "GET /api/sessions/:id/qr.svg": {who: teaching},

	"GET /api/account": {
		who: signedIn,
	}, "POST /api/account": {who: signedIn}, "POST /api/account/password": {who: signedIn},
	"POST /api/account/second/new": {who: signedIn}, "POST /api/account/second": {who: signedIn},
	"DELETE /api/account/sign-ins": {who: signedIn}, "DELETE /api/account/sign-ins/:id": {who: signedIn},

	"POST /api/settings": {who: member}, "GET /api/house": {who: member}, "GET /api/classes": {who: member},
	"POST /api/classes": {who: member}, "POST /api/classes/:id": {who: member},
	"POST /api/classes/:id/next": {who: member, body: `{"name":"9"}`},
	"POST /api/classes/:id/plan": {
		who:  member,
		body: `{"sets":[],"apart":[],"seats":{"rows":0,"columns":0,"at":[]}}`,
	},
	"POST /api/classes/:id/teachers":                     {who: member, body: `{"teacher":"COLLEAGUE","teaches":true}`},
	"GET /api/classes/:id/cards":                         {who: member},
	"DELETE /api/classes/:id/cards/:student":             {who: member},
	"POST /api/classes/:id/students":                     {who: member, body: `{"list":"Vera"}`},
	"POST /api/classes/:id/students/:student":            {who: member},
	"POST /api/list":                                     {who: member},
	"POST /api/list/file":                                {who: member},
	"POST /api/register":                                 {who: member},
	"GET /api/shared/:word":                              {who: member},
	"POST /api/shared/:word":                             {who: member},
	"GET /api/library":                                   {who: member},
	"POST /api/boards/:id/link":                          {who: member},
	"POST /api/classes/:id/students/:student/move":       {who: member, body: `{"to":"COLLEAGUE"}`},
	"POST /api/classes/:id/students/:student/merge":      {who: member, body: `{"with":"COLLEAGUE"}`},
	"GET /api/sessions/:id/people/:participant/likely":   {who: member},
	"POST /api/sessions/:id/people/:participant/student": {who: member},

	"GET /api/account/file": {who: signedIn}, "POST /api/classes/:id/keep": {who: member},
	"GET /api/classes/:id/students/:student/file": {
		who: member,
	}, "DELETE /api/classes/:id/students/:student": {who: member},
	"DELETE /api/staff/people/:id": {who: administrator}, "GET /api/persons": {who: administrator},
	"GET /api/persons/:id/file": {who: administrator}, "DELETE /api/persons/:id": {who: administrator},
	"GET /api/staff": {who: administrator}, "POST /api/staff/invitations": {who: administrator},
	"DELETE /api/staff/invitations/:id": {who: administrator}, "POST /api/staff/people/:id": {who: administrator},
	"POST /api/staff/people/:id/password": {
		who: administrator,
	}, "POST /api/staff/people/:id/hand-over": {who: administrator},
	"DELETE /api/staff/people/:id/second": {who: administrator}, "POST /api/house": {who: administrator},
	"GET /api/journal": {who: administrator},

	"POST /api/questions/try": {
		who: teaching,
	}, "GET /api/boards": {who: teaching}, "POST /api/boards": {who: teaching}, "GET /api/search": {who: teaching},
	"GET /api/boards/:id": {
		who: teaching,
	}, "POST /api/boards/:id/edits": {who: teaching, body: `{"since":0,"edits":[]}`},
	"GET /api/boards/:id/edits": {
		who: teaching,
	}, "POST /api/boards/:id/frames": {who: teaching,
		body: `{"id":"01936f2e-0000-7000-8000-000000000001","from":{"kind":"blank","blank":{}}}`},
	"POST /api/boards/:id/card": {who: teaching}, "POST /api/boards/:id/copies": {who: teaching},
	"POST /api/boards/:id/templates":   {who: teaching, body: `{"frame":"one","name":"x"}`},
	"POST /api/boards/:id/sessions":    {who: teaching, body: `{"class":"","pace":"led"}`},
	"POST /api/boards/:id/rehearsals":  {who: member, body: `{"students":2}`},
	"POST /api/sessions/:id/rehearsal": {who: teaching}, "DELETE /api/sessions/:id/rehearsal": {who: teaching},
	"POST /api/boards/:id/tidy": {who: teaching}, "GET /api/boards/:id/try": {who: teaching},
	"GET /api/boards/:id/file": {
		who: teaching,
	}, "GET /api/boards/:id/questions": {who: teaching}, "GET /api/intakes/:id": {who: teaching},
	"DELETE /api/intakes/:id": {who: teaching}, "GET /api/templates": {who: teaching},
	"DELETE /api/templates/:id": {
		who: teaching,
	}, "POST /api/library": {who: teaching}, "POST /api/sounds": {who: teaching},
	"GET /api/illustrations/:id": {who: teaching}, "GET /api/sessions/:id/differences": {who: teaching},
	"POST /api/sessions/:id/take": {
		who:  teaching,
		body: `{"kind":"title"}`,
	}, "POST /api/sessions/:id/fronts": {who: teaching},
	"DELETE /api/sessions/:id/fronts": {who: teaching}, "POST /api/sessions/:id/end": {who: teaching},
	"GET /api/sessions/:id/report": {who: teaching}, "GET /api/sessions/:id/report.pdf": {who: teaching},
	"GET /api/sessions/:id/report.xlsx": {who: teaching}, "GET /api/sessions/:id/report.csv": {who: teaching},
	"POST /api/sessions/:id/next":    {who: teaching, body: `{"title":"Next","polls":[],"frames":["one"]}`},
	"POST /api/sessions/:id/resume":  {who: teaching, body: `{}`},
	"GET /api/sessions/:id/homework": {who: teaching},
	"GET /api/looks/:word":           {who: anybody}, "GET /api/looks/:word/:n": {who: anybody},
	"DELETE /api/looks/:word": {who: teaching}, "GET /api/boards/:id/looks": {who: teaching},
	"POST /api/boards/:id/looks":   {who: teaching, body: `{"what":"board","form":"svg"}`},
	"GET /api/sessions/:id/looks":  {who: teaching},
	"POST /api/sessions/:id/looks": {who: teaching, body: `{"what":"students","form":"svg"}`},
	"GET /api/sessions/:id/record/:participant": {
		who: teaching,
	}, "GET /api/sessions/:id/frames/:frame": {who: teaching},
	"GET /api/classes/:id/year": {
		who: member,
	}, "GET /api/classes/:id/students/:student/year": {who: member},
	"POST /api/boards/:id/outputs":   {who: teaching, body: `{"what":"board","form":"pdf"}`},
	"POST /api/sessions/:id/outputs": {who: teaching, body: `{"what":"students","form":"pdf"}`},
	"GET /api/outputs/:output":       {who: teaching}, "DELETE /api/outputs/:output": {who: teaching},
	"GET /api/outputs/:output/file": {who: teaching},
	"POST /api/sessions/:id/voices": {who: teaching}, "POST /api/sessions/:id/criteria": {who: teaching},
	"GET /api/sessions/:id/judgements": {who: teaching}, "POST /api/sessions/:id/judgements": {who: teaching},
	"GET /api/sessions/:id/levels.csv": {who: teaching}, "GET /api/sessions/:id/levels.xlsx": {who: teaching},
	"GET /api/sessions/:id/stills": {who: teaching}, "POST /api/sessions/:id/stills": {who: teaching},
	"DELETE /api/sessions/:id/stills/:still": {who: teaching}, "GET /api/sessions/:id/between": {who: teaching},
	"GET /api/sessions/:id/letters": {who: teaching}, "GET /api/sessions/:id/letters.pdf": {who: teaching},
	"POST /api/sessions/:id/blind": {who: teaching}, "POST /api/sessions/:id/given": {who: teaching},
	"GET /api/sessions/:id/given": {who: anybody}, "POST /api/given": {who: anybody},
	"GET /api/sessions/:id/record": {who: teaching}, "GET /api/sessions/:id/record.csv": {who: teaching},
	"GET /api/sessions/:id/answers.csv": {who: teaching}, "GET /api/sessions/:id/answers.xlsx": {who: teaching},
	"GET /api/sessions/:id/alike": {who: teaching}, "GET /api/sessions/:id/questions": {who: teaching},
	"GET /api/sessions/:id/compare": {who: teaching}, "GET /api/classes/:id/mistakes": {who: member},
	"GET /api/sessions/:id/answers-alike": {who: teaching},
	"GET /api/sessions/:id/past":          {who: teaching}, "GET /api/sessions/:id/past/:after": {who: teaching},
	"GET /api/sessions/:id/line": {who: teaching}, "GET /api/sessions/:id/varied": {who: teaching},
	"POST /api/sessions/:id/people/:participant/name": {who: teaching},
	"GET /api/sessions/:id/coverage": {
		who: teaching,
	}, "GET /api/sessions/:id/coverage.csv": {who: teaching},
	"POST /api/pictures": {
		who: teaching,
	}, "POST /api/intakes": {who: teaching}, "POST /api/boards/file": {who: teaching},
}

// Every route has a rule, and each role is refused where its rule says so: with whatever
// of a colleague's it asks for, it gets nothing.
func TestAccess(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	h.administrator()
	house := settings.Usually()
	house.Guests = true
	if err := h.store.SetHouse(t.Context(), house); err != nil {
		t.Fatal(err)
	}
	ines, other := h.teacher("ines@ternharbour.example"), h.teacher("other@ternharbour.example")
	run, code := ines.started()
	student, _ := h.student(code, "Noor")
	guest := h.visitor()
	if got := guest.post("/api/guest", struct{}{}, nil); got != "" {
		t.Fatal(got)
	}
	var boards web.Boards
	ines.get("/api/boards", &boards)
	var book web.ClassBook
	ines.get("/api/classes", &book)
	people, err := h.store.Participants(t.Context(), run)
	if err != nil {
		t.Fatal(err)
	}
	fill := strings.NewReplacer(
		"boards/:id",
		"boards/"+boards.Boards[0].ID,
		"sessions/:id",
		"sessions/"+run,
		"classes/:id",
		"classes/"+book.Classes[0].ID,
		":student",
		book.Classes[0].Students[0].ID,
		":participant",
		people[0].ID,
		"COLLEAGUE",
		book.Colleagues[0].ID,
		":id",
		book.Colleagues[0].ID,
		":word",
		"nothing",
	)
	ask := func(v *visitor, route string) refusal.Code {
		method, path, _ := strings.Cut(route, " ")
		body := ""
		if method == http.MethodPost {
			body = "{}"
			if more := routes[route].body; more != "" {
				body = fill.Replace(more)
			}
		}
		status, header, text := v.send(method, fill.Replace(path), body, h.url)
		if status < 300 {
			return ""
		}
		return v.read(nil)(status, header, text)
	}
	engine, ok := h.handler.(*gin.Engine)
	if !ok {
		t.Fatal("the routes cannot be listed")
	}
	var all []string
	for _, r := range engine.Routes() {
		if strings.HasPrefix(r.Path, "/realtime") {
			continue // realtime asks for itself: see the tests of connections
		}
		route := r.Method + " " + r.Path
		if all = append(all, route); routes[route].who == "" {
			t.Errorf("%s has no rule", route)
		}
	}
	for route := range routes {
		if !slices.Contains(all, route) {
			t.Errorf("there is no %s any more", route)
		}
	}
	slices.Sort(all)
	refused := []refusal.Code{refusal.SignInNeeded, refusal.NotForGuests, refusal.NotForYou, refusal.SecondMissing}
	check := func(who string, v *visitor, want func(access) refusal.Code) {
		for _, route := range all {
			rule := routes[route].who
			if rule == anybody || rule == "" || strings.Contains(route, "sign-out") {
				continue
			}
			wanted, got := want(rule), ask(v, route)
			if wanted != "" && got != wanted || wanted == "" && slices.Contains(refused, got) {
				t.Errorf("%s: %s is answered with %q, want %q", who, route, got, wanted)
			}
		}
	}
	none := func(access) refusal.Code { return refusal.SignInNeeded }
	check("nobody", h.visitor(), none)
	check("a student", student, none)
	check("a guest", guest, func(a access) refusal.Code {
		if a == teaching {
			return ""
		}
		return refusal.NotForGuests
	})
	// What is one's own is there, also where nothing has changed.
	for _, route := range []string{"GET /api/boards/:id", "GET /api/boards/:id/edits", "GET /api/sessions/:id/record"} {
		if got := ask(ines, route); got != "" {
			t.Errorf("one's own: %s is answered with %q", route, got)
		}
	}
	// Whatever of a colleague's is asked for is not there.
	for _, route := range all {
		if routes[route].who == anybody {
			continue
		}
		named := strings.Contains(route, ":id") &&
			(strings.Contains(route, "/boards") || strings.Contains(route, "/sessions") ||
				strings.Contains(route, "/classes"))
		if got := ask(other, route); routes[route].who == administrator && got != refusal.NotForYou ||
			named && got != refusal.NotFound {
			t.Errorf("a colleague: %s is answered with %q", route, got)
		}
	}
	// Who has to set up a second factor first can do that alone.
	house.SecondFactor = true
	if err := h.store.SetHouse(t.Context(), house); err != nil {
		t.Fatal(err)
	}
	check("without a second factor", other, func(a access) refusal.Code {
		if a == signedIn {
			return ""
		}
		return refusal.SecondMissing
	})
}

// A guest teaches today, and takes what they have made into an account; nothing of the
// school is theirs, and what is not taken goes with them.
func TestGuests(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	guest := h.visitor()
	if got := guest.post("/api/guest", struct{}{}, nil); got != refusal.NoGuests {
		t.Fatalf("where the school does not let guests begin: %q", got)
	}
	if err := h.store.SetHouse(t.Context(), func() settings.House { s := settings.Usually(); s.Guests = true; return s }()); err != nil {
		t.Fatal(err)
	}
	var me web.Me
	if got := guest.post("/api/guest", struct{}{}, &me); got != "" || me.Teacher.GoesAt == nil ||
		me.Teacher.Role != account.Guest {
		t.Fatalf("%q %+v", got, me.Teacher)
	}
	var made web.BoardMade
	guest.post("/api/boards", web.NewBoard{Title: "Tides"}, &made)
	var started web.Started
	if got := guest.post("/api/boards/"+made.Board+"/sessions", web.StartSession{Pace: "led"}, &started); got != "" {
		t.Fatal(got)
	}
	if _, seat := h.student(guest.code(started.Session), "Noor"); seat.Session != started.Session {
		t.Error("nobody comes in")
	}
	large := string(make([]byte, 3<<20))
	if status, _, _ := guest.send(http.MethodPost, "/api/intakes", large,
		h.url); status != http.StatusRequestEntityTooLarge {
		t.Errorf("a large file: %d", status)
	}
	if got := guest.post("/api/sign-in", web.SignIn{Email: "ines@ternharbour.example", Password: "moon-and-tides"},
		nil); got != "" {
		t.Fatal(got)
	}
	var boards web.Boards
	if guest.get("/api/boards", &boards); len(boards.Boards) != 2 || len(boards.Sessions) != 1 {
		t.Errorf("what came along: %+v", boards)
	}
	gone := h.visitor()
	gone.post("/api/guest", struct{}{}, nil)
	gone.post("/api/boards", web.NewBoard{Title: "Tides"}, &made)
	if err := h.store.ForgetGuests(t.Context(), time.Now().Add(account.GuestLasts-time.Minute)); err != nil {
		t.Fatal(err)
	}
	if got := gone.get("/api/boards/"+made.Board, nil); got != "" {
		t.Errorf("before their time: %q", got)
	}
	if err := h.store.ForgetGuests(t.Context(), time.Now().Add(account.GuestLasts+time.Minute)); err != nil {
		t.Fatal(err)
	}
	if got := gone.get("/api/boards/"+made.Board, nil); got != refusal.SignInNeeded {
		t.Errorf("afterwards: %q", got)
	}
	// A guest makes no more than so much, and is nobody of the staff.
	busy, refused := h.visitor(), refusal.Code("")
	busy.post("/api/guest", struct{}{}, nil)
	for range 40 {
		if refused = busy.post("/api/boards", web.NewBoard{Title: "Tides"}, nil); refused != "" {
			break
		}
	}
	if refused != refusal.TooMany {
		t.Errorf("boards without end: %q", refused)
	}
	var book web.ClassBook
	if h.teacher("ines@ternharbour.example").get("/api/classes", &book); len(book.Colleagues) != 1 {
		t.Errorf("with whom a class can be taught: %+v", book.Colleagues)
	}
	for range 30 {
		if got := h.visitor().post("/api/guest", struct{}{}, nil); got == refusal.TooMany {
			return
		}
	}
	t.Error("guests without end from one address")
}

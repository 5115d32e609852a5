package web_test

import (
	"net/http"
	"strings"
	"sync"
	"testing"
	"time"

	"alpenglow/core/account"
	"alpenglow/core/refusal"
	"alpenglow/live"
	"alpenglow/store"
	"alpenglow/store/storetest"
	"alpenglow/web"
)

const strong = "kettle and otter"

// token makes an invitation, as the program does on its first start.
func (h *house) token(i store.Invitation) string {
	h.t.Helper()
	if i.Expires.IsZero() {
		i.Expires = time.Now().Add(time.Hour)
	}
	path, err := web.InvitationPath(h.t.Context(), h.store, i)
	if err != nil {
		h.t.Fatal(err)
	}
	return tokenOf(path)
}

func tokenOf(link string) string {
	_, token, _ := strings.Cut(link, "#")
	return token
}

// ended waits until a connection is closed from the other side.
func (l *line) ended() bool {
	select {
	case <-l.closed:
		return true
	case <-time.After(10 * time.Second):
		return false
	}
}

// administrator gives somebody who made the first account.
func (h *house) administrator() *visitor {
	h.t.Helper()
	v := h.visitor()
	if code := v.post("/api/invitation/accept", web.Accept{Token: h.token(store.Invitation{Role: account.Administrator}),
		Name: "Rosa Marlow", Email: "rosa@ternharbour.example", Password: strong}, nil); code != "" {
		h.t.Fatal(code)
	}
	return v
}

// A link makes one account, once, however often and at once it is used; what is typed
// wrong uses nothing up.
func TestInvitations(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	first := h.token(store.Invitation{Role: account.Administrator})
	accept := func(token, name, email, password string) refusal.Code {
		return h.visitor().post("/api/invitation/accept",
			web.Accept{Token: token, Name: name, Email: email, Password: password}, nil)
	}
	rosa := "rosa@ternharbour.example"
	for _, c := range []struct {
		what string
		got  refusal.Code
		want refusal.Code
	}{
		{"another link", accept("nothing", "Rosa", rosa, strong), refusal.InvitationGone},
		{"no name", accept(first, " ", rosa, strong), refusal.NameEmpty},
		{"no address", accept(first, "Rosa", "rosa", strong), refusal.EmailBad},
		{"somebody's address", accept(first, "Rosa", "INES@ternharbour.example", strong), refusal.EmailTaken},
		{"a short password", accept(first, "Rosa", rosa, "short"), refusal.PasswordShort},
		{"a common one", accept(first, "Rosa", rosa, "password1234"), refusal.PasswordCommon},
		{"one too old", accept(h.token(store.Invitation{Role: account.Teacher, Expires: time.Now().Add(-time.Second)}),
			"Rosa", rosa, strong), refusal.InvitationGone},
	} {
		if c.got != c.want {
			t.Errorf("%s: %q, want %q", c.what, c.got, c.want)
		}
	}
	var invited web.Invited
	if code := h.visitor().post("/api/invitation/check", web.InvitationToken{Token: first}, &invited); code != "" ||
		invited.Role != account.Administrator || invited.NewPassword {
		t.Fatalf("%q: %+v", code, invited)
	}
	var all sync.WaitGroup
	codes := make([]refusal.Code, 6)
	for i := range codes {
		all.Go(func() { codes[i] = accept(first, "Rosa", strings.Repeat("r", i+1)+rosa, strong) })
	}
	all.Wait()
	made := 0
	for _, code := range codes {
		switch code {
		case "":
			made++
		case refusal.InvitationGone:
		default:
			t.Errorf("at once: %q", code)
		}
	}
	if made != 1 {
		t.Errorf("one link made %d accounts", made)
	}
	// An address that stands in the invitation is the account's, whatever is typed.
	if code := accept(h.token(store.Invitation{Role: account.Teacher, Email: "uma@ternharbour.example"}), "Uma",
		"else@ternharbour.example", strong); code != "" {
		t.Fatal(code)
	}
	if got, err := h.store.TeacherByEmail(t.Context(), "uma@ternharbour.example"); err != nil ||
		got.Role != account.Teacher || got.Name != "Uma" {
		t.Errorf("%+v, %v", got, err)
	}
	if strings.Contains(h.log.String(), first) || strings.Contains(h.log.String(), strong) {
		t.Error("a link or a password stands in the log")
	}
}

// Administrators look after the accounts, nobody else does, and one of them stays.
// Who leaves is out at once, on every device.
func TestStaff(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	rosa, ines := h.administrator(), h.teacher("ines@ternharbour.example")
	for _, path := range []string{"/api/staff/invitations", "/api/staff/people/x", "/api/staff/people/x/password"} {
		for who, v := range map[string]*visitor{"a teacher": ines, "nobody": h.visitor()} {
			want := map[string]refusal.Code{"a teacher": refusal.NotForYou, "nobody": refusal.SignInNeeded}[who]
			if code := v.post(path, struct{}{}, nil); code != want {
				t.Errorf("%s by %s: %q, want %q", path, who, code, want)
			}
		}
	}
	var staff web.Staff
	if code := ines.get("/api/staff", &staff); code != refusal.NotForYou {
		t.Errorf("a teacher lists the staff: %q", code)
	}
	if code := rosa.get("/api/staff", &staff); code != "" || len(staff.People) != 3 {
		t.Fatalf("%q: %+v", code, staff)
	}
	ids := map[string]string{}
	for _, p := range staff.People {
		ids[p.Email] = p.ID
	}
	me, she := ids["rosa@ternharbour.example"], ids["ines@ternharbour.example"]
	yes, no, teacher, admin := true, false, account.Teacher, account.Administrator
	set := func(v *visitor, id string, to web.SetStanding) refusal.Code {
		return v.post("/api/staff/people/"+id, to, nil)
	}
	if a, b := set(rosa, me, web.SetStanding{Left: &yes}), set(rosa, me, web.SetStanding{Role: &teacher}); a !=
		refusal.LastOfAdmins || b != refusal.LastOfAdmins {
		t.Errorf("the last administrator goes: %q, %q", a, b)
	}
	owner := account.Role("owner")
	if code := set(rosa, she, web.SetStanding{Role: &owner}); code != refusal.Malformed {
		t.Errorf("another role: %q", code)
	}
	// Two administrators let each other leave at the same moment: one stays.
	if code := set(rosa, she, web.SetStanding{Role: &admin}); code != "" {
		t.Fatal(code)
	}
	var both sync.WaitGroup
	codes := [2]refusal.Code{}
	both.Go(func() { codes[0] = set(rosa, she, web.SetStanding{Role: &teacher}) })
	both.Go(func() { codes[1] = set(ines, me, web.SetStanding{Role: &teacher}) })
	both.Wait()
	db := storetest.DB(t, h.db)
	var admins int
	if err := db.Get(&admins, `SELECT count(*) FROM teachers WHERE role = 'administrator'`); err != nil || admins != 1 {
		t.Fatalf("%d administrators after %q: %v", admins, codes, err)
	}
	if _, err := db.Exec(`UPDATE teachers SET role = CASE WHEN id = $1 THEN 'administrator' ELSE 'teacher' END`,
		me); err != nil {
		t.Fatal(err)
	}
	// Links that an administrator has made are good no longer than they are one.
	var hers web.InviteLink
	if a, b := set(rosa, she, web.SetStanding{Role: &admin}), ines.post("/api/staff/invitations",
		web.Invite{Role: account.Administrator}, &hers); a != "" || b != "" {
		t.Fatal(a, b)
	}
	if code := set(rosa, she, web.SetStanding{Role: &teacher}); code != "" {
		t.Fatal(code)
	}
	if code := h.visitor().post("/api/invitation/check", web.InvitationToken{Token: tokenOf(hers.Link)}, nil); code !=
		refusal.InvitationGone {
		t.Errorf("the link of one who is no administrator any more: %q", code)
	}
	// Ines leaves while a lesson of hers is open.
	id, _ := ines.started()
	line := ines.connect(id, live.RoleStaff)
	if code := set(rosa, she, web.SetStanding{Left: &yes}); code != "" {
		t.Fatal(code)
	}
	if !line.ended() {
		t.Error("her lesson stays open")
	}
	if code := ines.get("/api/boards", nil); code != refusal.SignInNeeded {
		t.Errorf("her sign-in goes on: %q", code)
	}
	again := web.SignIn{Email: "ines@ternharbour.example", Password: "moon-and-tides"}
	if code := h.visitor().post("/api/sign-in", again, nil); code != refusal.SignInWrong {
		t.Errorf("she signs in again: %q", code)
	}
	if code := set(rosa, she, web.SetStanding{Left: &no}); code != "" {
		t.Fatal(code)
	}
	// A link to a new password: once, and it signs out everywhere.
	back := h.teacher("ines@ternharbour.example")
	var link web.InviteLink
	if code := rosa.post("/api/staff/people/"+she+"/password", struct{}{}, &link); code != "" {
		t.Fatal(code)
	}
	changed := h.visitor()
	next := web.Accept{Token: tokenOf(link.Link), Password: "otter and kettle"}
	if code := changed.post("/api/invitation/accept", next, nil); code != "" {
		t.Fatal(code)
	}
	if code := back.get("/api/boards", nil); code != refusal.SignInNeeded {
		t.Errorf("after the new password: %q", code)
	}
	if a, b := changed.get("/api/boards", nil), h.visitor().post("/api/sign-in", again, nil); a != "" ||
		b != refusal.SignInWrong {
		t.Errorf("with the new password %q, with the old one %q", a, b)
	}
	if code := h.visitor().post("/api/invitation/accept", next, nil); code != refusal.InvitationGone {
		t.Errorf("the link once more: %q", code)
	}
}

// One's own account: the password is changed by who knows it, and what is signed in
// elsewhere is seen and ended, in force on open connections.
func TestOwnAccount(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	here, there := h.teacher("ines@ternharbour.example"), h.teacher("ines@ternharbour.example")
	id, _ := there.started()
	line := there.connect(id, live.RoleStaff)
	var mine web.Account
	if code := here.get("/api/account", &mine); code != "" || len(mine.SignIns) != 2 || mine.Role != account.Teacher {
		t.Fatalf("%q: %+v", code, mine)
	}
	other := ""
	for _, s := range mine.SignIns {
		if !s.Here {
			other = s.ID
		}
	}
	elsewhere := h.teacher("other@ternharbour.example")
	remove := func(v *visitor, path string) refusal.Code {
		return v.read(nil)(v.send(http.MethodDelete, path, "", v.url))
	}
	if code := remove(elsewhere, "/api/account/sign-ins/"+other); code != refusal.NotFound {
		t.Errorf("somebody else ends it: %q", code)
	}
	if code := remove(here, "/api/account/sign-ins/"+other); code != "" {
		t.Fatal(code)
	}
	if !line.ended() || there.get("/api/boards", nil) != refusal.SignInNeeded {
		t.Error("a sign-in that was ended goes on")
	}
	third := h.teacher("ines@ternharbour.example")
	change := func(now, next string) refusal.Code {
		return here.post("/api/account/password", web.SetPassword{Now: now, Next: next}, nil)
	}
	for _, c := range []struct {
		now, next string
		want      refusal.Code
	}{
		{"wrong", strong, refusal.PasswordWrong},
		{"moon-and-tides", "short", refusal.PasswordShort},
		{"moon-and-tides", "inesaldana12", refusal.PasswordCommon},
		{"moon-and-tides", strong, ""},
	} {
		if got := change(c.now, c.next); got != c.want {
			t.Errorf("from %q to %q: %q, want %q", c.now, c.next, got, c.want)
		}
	}
	if a, b := here.get("/api/boards", nil), third.get("/api/boards", nil); a != "" || b != refusal.SignInNeeded {
		t.Errorf("after the change: here %q, elsewhere %q", a, b)
	}
	guesses := 0
	for range 30 {
		if change("guess", strong) == refusal.TooMany {
			guesses++
		}
	}
	if guesses == 0 {
		t.Error("the password is guessed without an end")
	}
	if code := here.post("/api/account", web.SetAccount{Name: " Ines  de Aldana "}, nil); code != "" {
		t.Fatal(code)
	}
	var who web.Me
	if here.get("/api/me", &who); who.Teacher == nil || who.Teacher.Name != "Ines de Aldana" {
		t.Errorf("%+v", who.Teacher)
	}
}

package web_test

import (
	"context"
	"strings"
	"testing"
	"time"

	"alpenglow/core/account"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/settings"
	"alpenglow/live"
	"alpenglow/store"
	"alpenglow/store/storetest"
	"alpenglow/web"

	"github.com/pquerna/otp/totp"
)

// code gives the time code of a secret now, or some steps from now.
func codeNow(t *testing.T, secret string, steps int) string {
	t.Helper()
	code, err := totp.GenerateCode(secret, time.Now().Add(time.Duration(steps)*30*time.Second))
	if err != nil {
		t.Fatal(err)
	}
	return code
}

// A second factor is confirmed before it counts; then the password alone does not sign
// in, no code counts twice, and a recovery code opens once.
func TestSecondFactor(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines := h.teacher("ines@ternharbour.example")
	elsewhere := h.teacher("ines@ternharbour.example")
	const password = "moon-and-tides"
	signIn := func(code string) refusal.Code {
		return h.visitor().
			post("/api/sign-in", web.SignIn{Email: "ines@ternharbour.example", Password: password, Code: code}, nil)
	}
	var made web.NewSecond
	if got := ines.post("/api/account/second/new", struct{}{}, &made); got != "" ||
		!strings.HasPrefix(made.Address, "otpauth://totp/") {
		t.Fatalf("%q %+v", got, made)
	}
	set := func(now, secret, code string, into any) refusal.Code {
		return ines.post("/api/account/second", web.SetSecond{Now: now, Secret: secret, Code: code}, into)
	}
	for what, c := range map[string]struct{ got, want refusal.Code }{
		"a wrong password": {set("x", made.Secret, codeNow(t, made.Secret, 0), nil), refusal.PasswordWrong},
		"a wrong code":     {set(password, made.Secret, "000000", nil), refusal.SecondWrong},
		"a short secret":   {set(password, "GEZDGNBV", "000000", nil), refusal.Malformed},
		"before it counts": {signIn(""), ""},
	} {
		if c.got != c.want {
			t.Errorf("%s: %q, want %q", what, c.got, c.want)
		}
	}
	var recovery web.Recovery
	if got := set(password, made.Secret, codeNow(t, made.Secret, 0), &recovery); got != "" ||
		len(recovery.Codes) != account.RecoveryCodes {
		t.Fatalf("%q %+v", got, recovery)
	}
	if got := elsewhere.get("/api/account", nil); got != refusal.SignInNeeded {
		t.Errorf("signed in elsewhere still: %q", got)
	}
	next := codeNow(t, made.Secret, 1)
	for _, c := range []struct {
		what, code string
		want       refusal.Code
	}{
		{"without a code", "", refusal.SecondNeeded}, {"a wrong code", "000000", refusal.SecondWrong},
		{"the code that confirmed it", codeNow(t, made.Secret, 0), refusal.SecondWrong}, {"the next one", next, ""},
		{"the same again", next, refusal.SecondWrong}, {"a recovery code", strings.ToUpper(recovery.Codes[0]), ""},
		{"the same again", recovery.Codes[0], refusal.SecondWrong},
	} {
		if got := signIn(c.code); got != c.want {
			t.Errorf("%s: %q, want %q", c.what, got, c.want)
		}
	}
	// Two at once with one recovery code: one of them is in.
	in := make(chan refusal.Code, 2)
	for range 2 {
		go func() { in <- signIn(recovery.Codes[1]) }()
	}
	if a, b := <-in, <-in; (a == "") == (b == "") {
		t.Errorf("two at once: %q and %q", a, b)
	}
	// A shorter password will do beside it.
	if got := ines.post("/api/account/password", web.SetPassword{Now: password, Next: "otterkel9"}, nil); got != "" {
		t.Errorf("a password of nine: %q", got)
	}
	for range 12 {
		if signIn("000000") == refusal.TooMany {
			return
		}
	}
	t.Error("codes are guessed without end")
}

// Where the school asks for a second factor, whoever has none sets one up before
// anything else, also over realtime; an administrator takes away one that is lost.
func TestSecondFactorOfAll(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	rosa, ines := h.administrator(), h.teacher("ines@ternharbour.example")
	run, _ := ines.started()
	house := settings.Usually()
	house.SecondFactor = true
	if got := rosa.post("/api/house", house, nil); got != "" {
		t.Fatal(got)
	}
	var me web.Me
	if ines.get("/api/me", &me); me.Teacher == nil || !me.Teacher.Held {
		t.Errorf("%+v", me.Teacher)
	}
	if got := ines.get("/api/boards", nil); got != refusal.SecondMissing {
		t.Errorf("boards: %q", got)
	}
	if _, why := ines.try(run, live.RoleStaff); why == nil || why.Code != 4501 {
		t.Errorf("the lesson opens: %v", why)
	}
	var made web.NewSecond
	ines.post("/api/account/second/new", struct{}{}, &made)
	if got := ines.post("/api/account/second", web.SetSecond{Now: "moon-and-tides", Secret: made.Secret,
		Code: codeNow(t, made.Secret, 0)}, nil); got != "" {
		t.Fatal(got)
	}
	if got := ines.get("/api/boards", nil); got != "" {
		t.Errorf("with one: %q", got)
	}
	if got := ines.post("/api/account/second", web.SetSecond{Now: "moon-and-tides", Code: codeNow(t, made.Secret, 1)},
		nil); got != refusal.SecondMissing {
		t.Errorf("taken away where it is asked for: %q", got)
	}
	// Rosa sets up her own, sees who has one, and takes Ines's away.
	rosa.post("/api/account/second/new", struct{}{}, &made)
	rosa.post(
		"/api/account/second",
		web.SetSecond{Now: strong, Secret: made.Secret, Code: codeNow(t, made.Secret, 0)},
		nil,
	)
	var staff web.Staff
	rosa.get("/api/staff", &staff)
	for _, p := range staff.People {
		if strings.HasPrefix(p.Email, "ines") {
			if !p.Second {
				t.Error("it does not show")
			}
			if got := rosa.remove("/api/staff/people/" + p.ID + "/second"); got != "" {
				t.Fatal(got)
			}
		}
	}
	if got := h.visitor().post("/api/sign-in", web.SignIn{Email: "ines@ternharbour.example",
		Password: "moon-and-tides"}, nil); got != "" {
		t.Errorf("without the lost one: %q", got)
	}
	var journal web.Journal
	rosa.get("/api/journal", &journal)
	var did []string
	for _, e := range journal.Entries {
		did = append(did, string(e.What))
	}
	if all := strings.Join(did, " "); all != "second-off second-on second-on house accepted" ||
		journal.Entries[0].By != "Rosa Marlow" {
		t.Errorf("the journal: %s", all)
	}
	for _, change := range []string{`UPDATE journal SET what = ''`, `DELETE FROM journal`, `TRUNCATE journal`} {
		if _, err := storetest.DB(t, h.db).Exec(change); err == nil {
			t.Errorf("the journal can be changed: %s", change)
		}
	}
}

// waiting stores mail and sends none.
type waiting struct{ *store.Store }

func (w waiting) Add(ctx context.Context, m *store.Mail) error { return w.AddMail(ctx, m) }

// mails lists what waits to be sent.
func (h *house) mails() []store.Mail {
	h.t.Helper()
	all := []store.Mail{}
	if err := storetest.DB(h.t, h.db).Select(&all, `SELECT id, address, subject, body, tries FROM mails ORDER BY made_at`); err != nil {
		h.t.Fatal(err)
	}
	return all
}

// Invitations come by mail, are listed until they are used, and withdrawn; a forgotten
// password is asked for by anybody and sent to its owner alone.
func TestMail(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	rosa := h.administrator()
	var link web.InviteLink
	if got := rosa.post("/api/staff/invitations", web.Invite{Email: "emil@ternharbour.example",
		Role: account.Teacher}, &link); got != "" ||
		link.Mailed != "emil@ternharbour.example" {
		t.Fatalf("%q %+v", got, link)
	}
	if sent := h.mails(); len(sent) != 1 || !strings.Contains(sent[0].Body, link.Link) ||
		sent[0].To != "emil@ternharbour.example" {
		t.Fatalf("%+v", sent)
	}
	var staff web.Staff
	rosa.get("/api/staff", &staff)
	if len(staff.Invitations) != 1 || !staff.Invitations[0].Mailed || staff.Invitations[0].Sent {
		t.Fatalf("%+v", staff.Invitations)
	}
	if got := rosa.remove("/api/staff/invitations/" + staff.Invitations[0].ID); got != "" {
		t.Fatal(got)
	}
	if got := h.visitor().post("/api/invitation/check", web.InvitationToken{Token: tokenOf(link.Link)},
		nil); got != refusal.InvitationGone {
		t.Errorf("withdrawn: %q", got)
	}
	if sent := h.mails(); len(sent) != 0 {
		t.Errorf("its mail waits still: %+v", sent)
	}
	for _, c := range []struct {
		email string
		want  refusal.Code
	}{{"nobody@ternharbour.example", ""}, {"INES@ternharbour.example", ""}, {"ines", refusal.EmailBad}} {
		if got := h.visitor().post("/api/reset", web.ResetPassword{Email: c.email}, nil); got != c.want {
			t.Errorf("%s: %q, want %q", c.email, got, c.want)
		}
	}
	for wait := 0; len(h.mails()) == 0; wait++ {
		if wait == 100 {
			t.Fatal("no mail")
		}
		time.Sleep(20 * time.Millisecond)
	}
	sent := h.mails()
	at := strings.Index(sent[0].Body, h.url)
	if len(sent) != 1 || sent[0].To != "ines@ternharbour.example" || at < 0 {
		t.Fatalf("%+v", sent)
	}
	token := tokenOf(strings.Fields(sent[0].Body[at:])[0])
	if got := h.visitor().post("/api/invitation/accept", web.Accept{Token: token, Password: strong}, nil); got != "" {
		t.Errorf("a new password: %q", got)
	}
	for range 10 {
		if h.visitor().
			post("/api/reset", web.ResetPassword{Email: "ines@ternharbour.example"}, nil) ==
			refusal.TooMany {
			return
		}
	}
	t.Error("mail without end to one address")
}

// What somebody who has left has made is a colleague's then.
func TestHandOver(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	rosa, ines := h.administrator(), h.teacher("ines@ternharbour.example")
	run, _ := ines.started()
	var staff web.Staff
	rosa.get("/api/staff", &staff)
	ids := map[string]string{}
	for _, p := range staff.People {
		name, _, _ := strings.Cut(p.Email, "@")
		ids[name] = p.ID
	}
	at, yes := "/api/staff/people/"+ids["ines"], true
	give := func(to string) refusal.Code { return rosa.post(at+"/hand-over", web.HandOver{To: to}, nil) }
	if got := give(ids["other"]); got != refusal.StillThere {
		t.Errorf("of somebody who is there: %q", got)
	}
	if got := rosa.post(at, web.SetStanding{Left: &yes}, nil); got != "" {
		t.Fatal(got)
	}
	for _, to := range []string{ids["ines"], "x", run} {
		if got := give(to); got != refusal.NotFound {
			t.Errorf("to %s: %q", to, got)
		}
	}
	other := h.teacher("other@ternharbour.example")
	if got := give(ids["other"]); got != "" {
		t.Fatal(got)
	}
	var boards web.Boards
	other.get("/api/boards", &boards)
	if len(boards.Boards) != 2 || len(boards.Sessions) != 1 || len(boards.Classes) != 2 {
		t.Errorf("%d boards, %d lessons, %d classes", len(boards.Boards), len(boards.Sessions), len(boards.Classes))
	}
	if got := other.get("/api/sessions/"+run+"/record", nil); got != "" {
		t.Errorf("the record: %q", got)
	}
}

// Where students do not learn each other's names, nothing that reaches them has one.
func TestNameless(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	ines := h.teacher("ines@ternharbour.example")
	var boards web.Boards
	ines.get("/api/boards", &boards)
	var started web.Started
	if got := ines.post("/api/boards/"+boards.Boards[0].ID+"/sessions", web.StartSession{Pace: session.Led,
		Nameless: true},
		&started); got != "" {
		t.Fatal(got)
	}
	code := ines.code(started.Session)
	noor, _ := h.student(code, "Noor")
	early := noor.connect(started.Session, live.RoleStudent)
	front := ines.connect(started.Session, live.RoleFront)
	h.student(code, "Wilhelmina")
	late, _ := h.student(code, "Zofia")
	other := late.connect(started.Session, live.RoleStudent)
	for name, l := range map[string]*line{"who was there": early, "who comes later": other, "the front screen": front} {
		if l.everHeard("Wilhelmina") {
			t.Errorf("%s learns a name", name)
		}
	}
	if !other.everHeard("Zofia") {
		t.Error("one's own name is not told")
	}
}

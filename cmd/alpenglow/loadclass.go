package main

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/cookiejar"
	"sync"

	"alpenglow/core/session"
	"alpenglow/demo"
	"alpenglow/store"
	"alpenglow/web"

	"golang.org/x/sync/errgroup"
)

// class is one class of the load: its clients, and what they were told, read once for all.
type class struct {
	session string
	sheet   string
	clients []*client
	mu      sync.Mutex
	told    map[int64]*told
}

// gather starts the sessions, lets the students join and connect.
func (o loadOptions) gather(ctx context.Context) ([]*class, error) {
	classes := make([]*class, o.classes)
	var codes []string
	if !o.relay {
		var err error
		if codes, err = o.startSessions(ctx, classes); err != nil {
			return nil, err
		}
	}
	work, ctx := errgroup.WithContext(ctx)
	work.SetLimit(32)
	for i := range classes {
		if classes[i] == nil {
			classes[i] = &class{session: fmt.Sprint("relay-", i), sheet: "relay"}
		}
		k := classes[i]
		k.told = map[int64]*told{}
		k.clients = make([]*client, o.students)
		for j := range k.clients {
			work.Go(func() error {
				cookie := ""
				if !o.relay {
					var err error
					if cookie, err = o.join(ctx, codes[i], fmt.Sprintf("Student %d", j+1)); err != nil {
						return err
					}
				}
				c, err := o.connect(ctx, k, cookie)
				k.clients[j] = c
				return err
			})
		}
	}
	return classes, work.Wait()
}

// startSessions signs in as the demo's teacher and starts a session for each class.
func (o loadOptions) startSessions(ctx context.Context, classes []*class) ([]string, error) {
	jar, err := cookiejar.New(nil)
	if err != nil {
		return nil, err
	}
	teacher := &http.Client{Jar: jar}
	if _, err := post[web.Me](ctx, teacher, o.url, "/api/sign-in",
		web.SignIn{Email: demo.Email, Password: demo.Password}); err != nil {
		return nil, err
	}
	boards, err := get[web.Boards](ctx, teacher, o.url, "/api/boards")
	if err != nil {
		return nil, err
	}
	if len(boards.Boards) == 0 {
		return nil, errNoDemo
	}
	codes := make([]string, len(classes))
	for i := range classes {
		started, err := post[web.Started](ctx, teacher, o.url, "/api/boards/"+boards.Boards[0].ID+"/sessions",
			web.StartSession{Pace: session.Led})
		if err != nil {
			return nil, err
		}
		invitation, err := get[web.Invitation](ctx, teacher, o.url, "/api/sessions/"+started.Session+"/invitation")
		if err != nil {
			return nil, err
		}
		classes[i], codes[i] = &class{session: started.Session}, invitation.Code
	}
	return codes, nil
}

// join gives the cookie of a new participant.
func (o loadOptions) join(ctx context.Context, code, name string) (string, error) {
	cookie, _, err := o.joinWith(ctx, code, name)
	return cookie, err
}

// joinWith gives the cookie of a new participant and the session they are in.
func (o loadOptions) joinWith(ctx context.Context, code, name string) (cookie, session string, err error) {
	jar, err := cookiejar.New(nil)
	if err != nil {
		return "", "", err
	}
	visitor := &http.Client{Jar: jar}
	seat, err := post[web.Seat](ctx, visitor, o.url, "/api/join", web.Join{Code: code, Name: name})
	if err != nil {
		return "", "", err
	}
	request, err := http.NewRequest(http.MethodGet, o.url+"/", nil)
	if err != nil {
		return "", "", err
	}
	for _, c := range jar.Cookies(request.URL) {
		return c.String(), seat.Session, nil
	}
	return "", "", fmt.Errorf("join: no cookie")
}

func post[Reply any](ctx context.Context, c *http.Client, url, path string, body any) (Reply, error) {
	text, err := json.Marshal(body)
	if err != nil {
		var none Reply
		return none, err
	}
	return call[Reply](ctx, c, http.MethodPost, url, path, bytes.NewReader(text))
}

func get[Reply any](ctx context.Context, c *http.Client, url, path string) (Reply, error) {
	return call[Reply](ctx, c, http.MethodGet, url, path, nil)
}

func call[Reply any](ctx context.Context, c *http.Client, method, url, path string, body io.Reader) (Reply, error) {
	var reply Reply
	request, err := http.NewRequestWithContext(ctx, method, url+path, body)
	if err != nil {
		return reply, err
	}
	request.Header.Set("Origin", url)
	response, err := c.Do(request)
	if err != nil {
		return reply, err
	}
	defer response.Body.Close()
	text, err := io.ReadAll(response.Body)
	if err != nil {
		return reply, err
	}
	if response.StatusCode >= 300 {
		return reply, fmt.Errorf("%s %s: %s: %s", method, path, response.Status, text)
	}
	return reply, json.Unmarshal(text, &reply)
}

// compare holds what the clients of each class were told against the database:
// every client has seen every number exactly once, and the changes they were
// told add up to the marks that are stored.
func (o loadOptions) compare(ctx context.Context, classes []*class, r *report) error {
	db, err := store.Open(ctx, o.database)
	if err != nil {
		return err
	}
	defer db.Close()
	for _, k := range classes {
		key, err := db.SheetKey(ctx, k.sheet)
		if err != nil {
			return err
		}
		sheet, err := db.LoadSheet(ctx, key)
		if err != nil {
			return err
		}
		picture := map[string]string{}
		ink := map[string][]float64{} // a line that only moved comes without its points
		for seq := int64(1); seq <= sheet.Seq; {
			told, ok := k.told[seq]
			if !ok {
				r.lost++
				seq++
				continue
			}
			for _, change := range told.changes {
				for _, e := range change.Put {
					if e.Stroke != nil && len(e.Stroke.Points) == 0 {
						e.Stroke.Points = ink[e.ID]
					} else if e.Stroke != nil {
						ink[e.ID] = e.Stroke.Points
					}
					text, _ := json.Marshal(e)
					picture[e.ID] = string(text)
				}
				seq = change.Seq + 1
			}
		}
		for _, e := range sheet.Marks() {
			if text, _ := json.Marshal(e); picture[e.ID] != string(text) {
				r.lost++
			}
			delete(picture, e.ID)
		}
		r.double += len(picture) // told, but not in the database
		for _, c := range k.clients {
			if c.seq != sheet.Seq || c.holes > 0 || c.differs > 0 {
				r.lost++
			}
			r.checkedClients++
		}
		acked := 0
		for _, c := range k.clients {
			acked += len(c.acked)
		}
		if acked != int(sheet.Seq) {
			r.double += max(0, int(sheet.Seq)-acked)
			r.lost += max(0, acked-int(sheet.Seq))
		}
		r.checkedOps += int(sheet.Seq)
	}
	return nil
}

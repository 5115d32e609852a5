package main

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"strings"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/sheet"
	"alpenglow/demo"
	"alpenglow/live"
	"alpenglow/store"

	"github.com/gorilla/websocket"
)

// assault is somebody who has a lesson's code, and means harm.
type assault struct {
	url, code string
	joined    int
	seats     []*hostile
	teacher   *hostile // an account can be stolen
}

// hostile is one seat of theirs.
type hostile struct {
	url, cookie, session, sheet string
	conn                        *websocket.Conn
	next                        int
}

// join takes another seat.
func (a *assault) join(ctx context.Context) (*hostile, error) {
	a.joined++
	o := loadOptions{url: a.url}
	cookie, session, err := o.joinWith(ctx, a.code, fmt.Sprint("Guest ", a.joined))
	return &hostile{url: a.url, cookie: cookie, session: session}, err
}

// signIn takes a teacher's account.
func (a *assault) signIn(ctx context.Context) error {
	body := fmt.Sprintf(`{"email":"ines@ternharbour.example","password":%q}`, demo.Password)
	request, err := http.NewRequestWithContext(ctx, http.MethodPost, a.url+"/api/sign-in", strings.NewReader(body))
	if err != nil {
		return err
	}
	request.Header.Set("Origin", a.url)
	response, err := http.DefaultClient.Do(request)
	if err != nil {
		return err
	}
	response.Body.Close()
	if response.StatusCode >= 300 {
		return fmt.Errorf("sign in: %s", response.Status)
	}
	a.teacher = &hostile{url: a.url}
	for _, c := range response.Cookies() {
		a.teacher.cookie += c.Name + "=" + c.Value + "; "
	}
	return nil
}

// seat takes a seat and connects.
func (a *assault) seat(ctx context.Context) (*hostile, error) {
	h, err := a.join(ctx)
	if err == nil {
		err = h.connect(ctx)
	}
	if err != nil {
		return nil, err
	}
	a.seats = append(a.seats, h)
	return h, nil
}

func (a *assault) close() {
	for _, h := range a.seats {
		h.conn.Close()
	}
	a.seats = nil
}

func (h *hostile) connect(ctx context.Context) error {
	conn, response, err := websocket.DefaultDialer.DialContext(ctx, strings.Replace(h.url, "http", "ws", 1)+"/realtime",
		http.Header{"Origin": {h.url}, "Cookie": {h.cookie}})
	if err != nil {
		return err
	}
	response.Body.Close()
	h.conn, h.next = conn, 1
	if _, err := h.ask(ctx, "connect", map[string]any{"data": live.Connect{Session: h.session,
		As: live.RoleStudent}}); err != nil {
		return err
	}
	var hello live.StudentHello
	if err := h.call(ctx, live.MethodHello, live.Hello{}, &hello); err != nil {
		return err
	}
	if len(hello.Sheets) > 0 {
		h.sheet = hello.Sheets[0].Sheet
	}
	return nil
}

// ops sends operations in one message and counts those that were taken.
func (h *hostile) ops(ctx context.Context, ops ...sheet.Step) (taken int, err error) {
	var ask live.Ops
	for _, step := range ops {
		text, err := json.Marshal(sheet.Op{ID: store.NewID(), Sheet: h.sheet, Step: step})
		if err != nil {
			return 0, err
		}
		ask.Ops = append(ask.Ops, text)
	}
	var reply live.OpsReply
	if err := h.call(ctx, live.MethodOps, ask, &reply); err != nil {
		return 0, err
	}
	for _, r := range reply.Results {
		if r.Problem == nil {
			taken++
		}
	}
	return taken, nil
}

func (h *hostile) call(ctx context.Context, method string, data, into any) error {
	text, err := h.ask(ctx, "rpc", map[string]any{"method": method, "data": data})
	if err != nil {
		return err
	}
	return json.Unmarshal(text, into)
}

// ask says something and waits for the answer; what else is said is passed over.
func (h *hostile) ask(ctx context.Context, kind string, body any) (json.RawMessage, error) {
	id := h.next
	h.next++
	if err := h.conn.WriteJSON(map[string]any{"id": id, kind: body}); err != nil {
		return nil, err
	}
	stop := context.AfterFunc(ctx, func() { h.conn.SetReadDeadline(time.Now()) })
	defer stop()
	for {
		_, text, err := h.conn.ReadMessage()
		if err != nil {
			return nil, err
		}
		for line := range bytes.Lines(text) {
			var said struct {
				ID  int
				RPC struct{ Data json.RawMessage }
			}
			switch {
			case len(bytes.TrimSpace(line)) == 2: // {} asks whether somebody is there
				h.conn.WriteMessage(websocket.TextMessage, []byte("{}"))
			case json.Unmarshal(line, &said) == nil && said.ID == id:
				return said.RPC.Data, nil
			}
		}
	}
}

// post sends a body over HTTP and gives the status.
func (h *hostile) post(ctx context.Context, path string, body io.Reader) (int, error) {
	request, err := http.NewRequestWithContext(ctx, http.MethodPost, h.url+path, body)
	if err != nil {
		return 0, err
	}
	request.Header.Set("Origin", h.url)
	request.Header.Set("Cookie", h.cookie)
	request.Header.Set("Content-Type", "application/octet-stream")
	response, err := http.DefaultClient.Do(request)
	if err != nil {
		return 0, err
	}
	io.Copy(io.Discard, response.Body)
	response.Body.Close()
	return response.StatusCode, nil
}

// aLine is a line of so many points in a band of the frame.
func aLine(points int, top float64) sheet.Step {
	flat := make([]float64, 0, 3*points)
	for i := range points {
		flat = append(flat, float64(i%1500), float64(i*7%40), 0.5)
	}
	return sheet.Step{Kind: sheet.KindAdd, Add: &sheet.Add{Mark: store.NewID(), X: 10, Y: top,
		Body: lesson.Body{Kind: lesson.KindStroke, Stroke: &lesson.Stroke{Points: flat, Ink: "night", Width: 4}}}}
}

func aNote(words string) sheet.Step {
	return sheet.Step{
		Kind: sheet.KindAdd,
		Add: &sheet.Add{Mark: store.NewID(), X: 300, Y: 300, W: 200, H: 100, Free: true,
			Body: lesson.Body{Kind: lesson.KindNote, Note: &lesson.Note{Text: words, Tint: "moss"}}},
	}
}

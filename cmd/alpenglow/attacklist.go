package main

import (
	"archive/zip"
	"bytes"
	"context"
	"fmt"
	"image"
	"image/jpeg"
	"io"
	"math"
	"net"
	"net/http"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/sheet"
	"alpenglow/store"
)

// attack is one way of doing harm; do says what came of it. Where a bound is
// stated that lets the server grow by more than usual, more says by how many MiB.
type attack struct {
	name string
	do   func(ctx context.Context, a *assault) (string, error)
	more int64
}

// allAttacks are what was once found to hold up others, or to take memory, after
// nothing at all, to compare with.
var allAttacks = []attack{
	{"none", rest6, 0},
	{"eraser's long way over long lines", eraserOverLines, 0},
	{"many steps that bring back, and one bad", bringingBack, 0},
	{"a frame filled and emptied", fillingUp, 0},
	{"many lines moved at once", movingMany, 0},
	{"notes of the longest words, looking for room", longNotes, 0},
	{"texts of the longest words, looking for room", longTexts, 0},
	{"numbers beyond all frames", farNumbers, 0},
	{"a drawing of endless dashes", upload(endlessDashes), 0},
	{"a photo of 1,500 scans", upload(manyScans), 0},
	{"200 pictures of 10 MB from 20 seats", bigPictures, 0},
	{"pictures a byte at a time", slowPictures, 0},
	// A connection costs 30 KiB, and there may be as many as the limits say.
	{"bodies half sent", halfBodies, 32},
	{"seats without number", manySeats, 0},
	{"connections of one seat without number", manyConnections, 0},
	{"a board file of empty marks", emptyMarks, 0},
	{"empty files to be read", emptyFiles, 0},
	// Passwords are held against their hashes a few at a time, each in 64 MiB, which
	// last until they are collected.
	{"wrong passwords", wrongPasswords, 4 * 64},
}

// rest6 does nothing: what an answer takes then is what the machine takes.
func rest6(ctx context.Context, _ *assault) (string, error) {
	<-ctx.Done()
	return "–", nil
}

// repeat does something until the time is over, and says how often it was done
// and how much of it was taken.
func repeat(ctx context.Context, what string, do func() (int, error)) (string, error) {
	times, taken := 0, 0
	for ctx.Err() == nil {
		n, err := do()
		taken += n
		if err != nil {
			if ctx.Err() == nil {
				return "", err
			}
			break
		}
		times++
	}
	return fmt.Sprintf("%d %s, %d taken", times, what, taken), nil
}

func eraserOverLines(ctx context.Context, a *assault) (string, error) {
	h, err := a.seat(ctx)
	if err != nil {
		return "", err
	}
	for range 40 {
		if _, err := h.ops(ctx, aLine(3000, 400)); err != nil {
			return "", err
		}
	}
	way := []float64{}
	for i := range 500 {
		way = append(way, float64(i*3), 440+float64(i%2))
	}
	return repeat(ctx, "ways", func() (int, error) {
		return h.ops(ctx, sheet.Step{Kind: sheet.KindErase, Erase: &sheet.Erase{Path: way, Radius: 1, Part: true}})
	})
}

func bringingBack(ctx context.Context, a *assault) (string, error) {
	h, err := a.seat(ctx)
	if err != nil {
		return "", err
	}
	var steps []sheet.Step
	for i := range 240 {
		add := aNote(fmt.Sprint("tide ", i))
		add.Add.Free = false
		remove := sheet.Step{Kind: sheet.KindRemove, Remove: &sheet.Remove{Mark: add.Add.Mark}}
		if i < 100 {
			if _, err := h.ops(ctx, add, remove); err != nil {
				return "", err
			}
		}
		steps = append(steps, sheet.Step{Kind: sheet.KindRestore, Restore: &sheet.Restore{In: store.NewID()}})
	}
	return repeat(ctx, "messages", func() (int, error) {
		return h.ops(ctx, sheet.Step{Kind: sheet.KindMany, Many: &sheet.Many{Steps: steps}})
	})
}

func fillingUp(ctx context.Context, a *assault) (string, error) {
	h, err := a.seat(ctx)
	if err != nil {
		return "", err
	}
	return repeat(ctx, "lines", func() (int, error) {
		add := aLine(1000, 600)
		n, err := h.ops(ctx, add, sheet.Step{Kind: sheet.KindRemove, Remove: &sheet.Remove{Mark: add.Add.Mark}})
		return n, err
	})
}

func movingMany(ctx context.Context, a *assault) (string, error) {
	h, err := a.seat(ctx)
	if err != nil {
		return "", err
	}
	for range 9 {
		if _, err := a.seat(ctx); err != nil { // they all are told
			return "", err
		}
	}
	var marks []string
	for range 60 {
		add := aLine(1000, 200)
		if n, err := h.ops(ctx, add); err != nil {
			return "", err
		} else if n > 0 {
			marks = append(marks, add.Add.Mark)
		}
	}
	x := 1.0
	return repeat(ctx, "messages", func() (int, error) {
		x++
		at := math.Mod(x, 50)
		var steps []sheet.Step
		for _, m := range marks {
			steps = append(
				steps,
				sheet.Step{Kind: sheet.KindSet, Set: &sheet.Set{Mark: m, Properties: lesson.Properties{X: &at}}},
			)
		}
		return h.ops(ctx, sheet.Step{Kind: sheet.KindMany, Many: &sheet.Many{Steps: steps}})
	})
}

func longNotes(ctx context.Context, a *assault) (string, error) {
	h, err := a.seat(ctx)
	if err != nil {
		return "", err
	}
	n := 0
	return repeat(ctx, "notes", func() (int, error) {
		n++
		return h.ops(ctx, aNote(fmt.Sprint(n, strings.Repeat("श्रृंखला ", 66))))
	})
}

func longTexts(ctx context.Context, a *assault) (string, error) {
	h, err := a.seat(ctx)
	if err != nil {
		return "", err
	}
	n := 0
	return repeat(ctx, "texts", func() (int, error) {
		n++
		add := aNote("")
		add.Add.Body = lesson.Body{Kind: lesson.KindText,
			Text: &lesson.Text{Text: fmt.Sprint(n, strings.Repeat("श्रृंखला ", 440)), Size: 16, Ink: "night"}}
		return h.ops(ctx, add)
	})
}

func farNumbers(ctx context.Context, a *assault) (string, error) {
	h, err := a.seat(ctx)
	if err != nil {
		return "", err
	}
	far := sheet.Step{Kind: sheet.KindAdd, Add: &sheet.Add{Mark: store.NewID(), X: 10, Y: 10, Body: lesson.Body{
		Kind: lesson.KindStroke, Stroke: &lesson.Stroke{Points: []float64{1e20, 1e20, .5, 0, 0, .5}, Ink: "night",
			Width: 4}}}}
	return repeat(ctx, "messages", func() (int, error) { return h.ops(ctx, far) })
}

func endlessDashes() []byte {
	return []byte(
		`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100"><path d="M0 0L1e9 1e9" stroke="#000" ` +
			`stroke-dasharray=".016" stroke-dashoffset="1e12"/></svg>`,
	)
}

func manyScans() []byte {
	var photo bytes.Buffer
	jpeg.Encode(&photo, image.NewRGBA(image.Rect(0, 0, 64, 64)), nil)
	data := photo.Bytes()
	scan := bytes.Index(data, []byte{0xff, 0xda})
	scans := append([]byte{}, data[:len(data)-2]...)
	for range 1500 {
		scans = append(scans, data[scan:len(data)-2]...)
	}
	return scans
}

func upload(picture func() []byte) func(ctx context.Context, a *assault) (string, error) {
	return func(ctx context.Context, a *assault) (string, error) {
		h, err := a.join(ctx)
		if err != nil {
			return "", err
		}
		return repeat(ctx, "pictures", func() (int, error) {
			status, err := h.post(ctx, "/api/sessions/"+h.session+"/pictures", bytes.NewReader(picture()))
			if status == http.StatusCreated {
				return 1, err
			}
			return 0, err
		})
	}
}

// together lets n do something at the same time until the time is over.
func together(ctx context.Context, n int, do func(i int)) {
	var all sync.WaitGroup
	for i := range n {
		all.Go(func() {
			for ctx.Err() == nil {
				do(i)
			}
		})
	}
	all.Wait()
}

func bigPictures(ctx context.Context, a *assault) (string, error) {
	var seats []*hostile
	for range 20 {
		h, err := a.join(ctx)
		if err != nil {
			return "", err
		}
		seats = append(seats, h)
	}
	big := append([]byte("\x89PNG\r\n\x1a\n"), make([]byte, 10<<20-100)...)
	var all sync.WaitGroup
	var sent, answered atomic.Int64
	for i := range 200 {
		h := seats[i%20]
		all.Go(func() {
			sent.Add(1)
			if status, err := h.post(ctx, "/api/sessions/"+h.session+"/pictures", bytes.NewReader(big)); err == nil &&
				status > 0 {
				answered.Add(1)
			}
		})
	}
	all.Wait()
	return fmt.Sprintf("%d sent, %d refused", sent.Load(), answered.Load()), nil
}

// slowly gives a byte a second.
type slowly struct{ ctx context.Context }

func (s slowly) Read(p []byte) (int, error) {
	select {
	case <-s.ctx.Done():
		return 0, io.EOF
	case <-time.After(time.Second):
		p[0] = 0x89
		return 1, nil
	}
}

func slowPictures(ctx context.Context, a *assault) (string, error) {
	slow, err := a.join(ctx)
	if err != nil {
		return "", err
	}
	go together(ctx, 18, func(int) { slow.post(ctx, "/api/sessions/"+slow.session+"/pictures", slowly{ctx}) })
	other, err := a.join(ctx)
	if err != nil {
		return "", err
	}
	var photo bytes.Buffer
	jpeg.Encode(&photo, image.NewRGBA(image.Rect(0, 0, 64, 64)), nil)
	return repeat(ctx, "pictures of another seat", func() (int, error) {
		status, err := other.post(ctx, "/api/sessions/"+other.session+"/pictures", bytes.NewReader(photo.Bytes()))
		time.Sleep(100 * time.Millisecond)
		if status == http.StatusCreated {
			return 1, err
		}
		return 0, err
	})
}

func halfBodies(ctx context.Context, a *assault) (string, error) {
	host := strings.TrimPrefix(a.url, "http://")
	var open []net.Conn
	defer func() {
		for _, c := range open {
			c.Close()
		}
	}()
	for range 1500 {
		c, err := net.Dial("tcp", host)
		if err != nil {
			break
		}
		open = append(open, c)
		fmt.Fprintf(
			c,
			"POST /api/sign-in HTTP/1.1\r\nHost: %s\r\nOrigin: %s\r\nContent-Length: 200\r\n\r\n{",
			host,
			a.url,
		)
	}
	<-ctx.Done()
	return fmt.Sprintf("%d connections", len(open)), nil
}

func manySeats(ctx context.Context, a *assault) (string, error) {
	return repeat(ctx, "joins", func() (int, error) {
		if _, err := a.join(ctx); err != nil {
			time.Sleep(5 * time.Millisecond)
			return 0, nil // refused
		}
		return 1, nil
	})
}

func manyConnections(ctx context.Context, a *assault) (string, error) {
	h, err := a.join(ctx)
	if err != nil {
		return "", err
	}
	return repeat(ctx, "connections", func() (int, error) {
		again := *h
		if err := again.connect(ctx); err != nil {
			return 0, nil // refused
		}
		a.seats = append(a.seats, &again)
		return 1, nil
	})
}

func wrongPasswords(ctx context.Context, a *assault) (string, error) {
	h := hostile{url: a.url}
	var sent atomic.Int64
	together(ctx, 20, func(i int) {
		h.post(
			ctx,
			"/api/sign-in",
			strings.NewReader(fmt.Sprintf(`{"email":"ines%d@ternharbour.example","password":"no"}`, i)),
		)
		sent.Add(1)
	})
	return fmt.Sprintf("%d tried", sent.Load()), nil
}

// emptyMarks sends a board file of 20 KB that is 19 MiB when it is unpacked.
func emptyMarks(ctx context.Context, a *assault) (string, error) {
	var packed bytes.Buffer
	archive := zip.NewWriter(&packed)
	w, err := archive.Create("board.json")
	if err != nil {
		return "", err
	}
	fmt.Fprint(w, `{"format":"alpenglow-board","version":2,"board":{"title":"x","frames":[{"id":"f","prepared":[{}`)
	io.WriteString(w, strings.Repeat(",{}", 6_500_000))
	fmt.Fprint(w, `]}]}}`)
	if err := archive.Close(); err != nil {
		return "", err
	}
	return repeat(ctx, "files", func() (int, error) {
		status, err := a.teacher.post(ctx, "/api/boards/file", bytes.NewReader(packed.Bytes()))
		if err == nil && status < 300 {
			return 1, err
		}
		return 0, err
	})
}

func emptyFiles(ctx context.Context, a *assault) (string, error) {
	return repeat(ctx, "files", func() (int, error) {
		status, err := a.teacher.post(ctx, "/api/intakes?name=empty.csv", strings.NewReader(""))
		if err == nil && status < 300 {
			return 1, err
		}
		return 0, err
	})
}
